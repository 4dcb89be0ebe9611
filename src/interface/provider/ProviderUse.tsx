"use client";

import { useCommand } from "../shared/ask";
import { Button, ChoiceField, Notice, Row, Stack } from "../shared/controls";
import { providerUse as t } from "./strings";
import type { Provider } from "./types";

/** On, off, required; and what becomes of people whom Galtry does not know. */
export function ProviderUse({ provider, isOwner, owners }: { provider: Provider; isOwner: boolean; owners: string[] }) {
  const enable = useCommand("provider.enableProvider");
  const require = useCommand("provider.requireProvider");
  const joins = useCommand("provider.chooseJoins");
  const refused = [enable, require, joins].map((one) => one.refused).find(Boolean);
  const { id: providerId } = provider;
  return (
    <section>
      <h3>{t.use}</h3>
      <Stack style={{ gap: 10 }}>
        <Row>
          <Button
            look={provider.passed && !provider.enabled ? "go" : "plain"}
            isDisabled={!provider.enabled && !provider.passed}
            onPress={() => enable.run({ providerId, enabled: !provider.enabled })}
          >
            {provider.enabled ? t.switchOff : t.switchOn}
          </Button>
          {isOwner && provider.enabled && (
            <Button onPress={() => require.run({ providerId, required: !provider.required })}>
              {provider.required ? t.notRequired : t.staffMustUseIt}
            </Button>
          )}
        </Row>
        <p className="soft small">{!provider.enabled && !provider.passed ? t.possibleAfterATest : t.onSays}</p>
        {isOwner && provider.enabled && !provider.required && (
          <p className="soft small">
            {t.requireSays} {owners.length > 0 && t.ownersNeed(owners.join(", "))}
          </p>
        )}
        {refused && (
          <Notice data-tone="bad" role="alert">
            {refused.message}
          </Notice>
        )}
        <ChoiceField
          label={t.whoJoins}
          value={provider.joins}
          onText={(chosen) => joins.run({ providerId, joins: chosen as Provider["joins"] })}
        >
          <option value="invited">{t.refused}</option>
          <option value="themselves">{t.added}</option>
        </ChoiceField>
      </Stack>
    </section>
  );
}
