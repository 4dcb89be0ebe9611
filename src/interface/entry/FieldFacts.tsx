import { PASSWORD } from "@/core/kinds/kind";
import { wifiText } from "@/core/kinds/wifi";
import { sayMonth } from "@/core/month";
import { sayDay } from "@/core/time";
import { Act } from "../shared/controls";
import { useCopy } from "../shared/useCopy";
import { Fact } from "./Card";
import { Secret } from "./Secret";
import { fieldFacts as t } from "./strings";
import type { EntryView } from "./types";

type FieldView = EntryView["fields"][number];

/** The fields of an entry that are filled in, as their class and form have it; empty ones only where `blanks` is set. */
export function FieldFacts({ entry, now, blanks }: { entry: EntryView; now: number; blanks: boolean }) {
  return (
    <>
      {entry.fields
        .filter((field) => field.filled || (blanks && field.class !== "open" && field.form !== "one-time code"))
        .map((field) => (
          <FieldFact key={field.id} entry={entry} field={field} now={now} />
        ))}
    </>
  );
}

/** For a telephone to join by. */
function joinBy(entry: EntryView) {
  const filled = (id: string) => entry.fields.find((field) => field.id === id)?.value ?? "";
  return {
    label: t.qrCodeToJoin,
    text: (password: string) =>
      wifiText({
        network: filled("network"),
        security: filled("security"),
        hidden: filled("hidden").startsWith("no"),
        password,
      }),
  };
}

function FieldFact({ entry, field, now }: { entry: EntryView; field: FieldView; now: number }) {
  const { copy, copied } = useCopy();
  if (!field.filled)
    return (
      <Fact label={field.label}>
        <span className="soft">{t.none}</span>
      </Fact>
    );
  if (field.value === null)
    return (
      <Secret
        entryId={entry.id}
        field={field.id}
        label={field.label}
        condition={entry.conditions[field.id]}
        note={field.codes == null ? undefined : t.codes(field.codes)}
        qr={entry.kind.id === "wifi" && field.id === PASSWORD ? joinBy(entry) : undefined}
      />
    );
  const { value } = field;
  return (
    <Fact
      label={field.label}
      act={
        <Act onPress={() => copy(value)} aria-label={t.copy(field.label)}>
          {copied === value ? t.copied : t.copy2}
        </Act>
      }
    >
      <Value field={field} value={value} zone={entry.zone} now={now} />
    </Fact>
  );
}

function Value({ field, value, zone, now }: { field: FieldView; value: string; zone: string; now: number }) {
  switch (field.form) {
    case "text":
      return <span style={{ whiteSpace: "pre-wrap" }}>{value}</span>;
    case "date":
      // Noon in the organisation's zone is on that day wherever it is.
      return <>{sayDay(Date.parse(`${value}T12:00:00Z`), now, zone)}</>;
    case "month":
      return <span className="mono">{sayMonth(value)}</span>;
    case "mail":
      return <a href={`mailto:${value}`}>{value}</a>;
    case "phone":
      return <a href={`tel:${value.replace(/[^\d+*#]/g, "")}`}>{value}</a>;
    case "choice":
      return <>{value}</>;
    default:
      return <span className={field.class === "open" ? undefined : "mono"}>{value}</span>;
  }
}
