"use client";

import { COLUMN_WORDS, LEDGER_COLUMNS, type LedgerView } from "@/core/ledgerView";
import { CheckField, ChoiceField, Row, Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { arrange as t } from "./strings";

interface ArrangeProps {
  view: LedgerView;
  onChange: (view: LedgerView) => void;
  onClose: () => void;
}

/** Columns, order and what stands together: kept for the person, on every device. */
export function Arrange({ view, onChange, onClose }: ArrangeProps) {
  return (
    <Dialog title={t.arrangeTheLedger} open onClose={onClose}>
      <Stack>
        <ChoiceField
          label={t.sortBy}
          value={view.sort}
          onText={(sort) => onChange({ ...view, sort: sort as LedgerView["sort"], reverse: false })}
          hint={view.sort === "own" ? t.altWithTheUpAndDownArrow : undefined}
        >
          <option value="name">{t.name}</option>
          <option value="used">{t.lastUsed}</option>
          <option value="new">{t.dateAdded}</option>
          <option value="own">{t.yourOwnOrder}</option>
          {(["kind", "address", "who", "strength", "upkeep", "changed", "you"] as const).map((column) => (
            <option key={column} value={column}>
              {COLUMN_WORDS[column]}
            </option>
          ))}
        </ChoiceField>
        <ChoiceField
          label={t.sections}
          value={view.group}
          onText={(group) => onChange({ ...view, group: group as LedgerView["group"] })}
        >
          <option value="folder">{t.folder}</option>
          <option value="kind">{t.kind}</option>
          <option value="tag">{t.tag}</option>
          <option value="none">{t.none}</option>
        </ChoiceField>
        <fieldset>
          <legend style={{ fontSize: 14, marginBottom: 6 }}>{t.columns}</legend>
          <Row style={{ gap: "8px 24px" }}>
            {LEDGER_COLUMNS.map((column) => (
              <CheckField
                key={column}
                checked={view.columns.includes(column)}
                onTick={(wanted) =>
                  onChange({
                    ...view,
                    columns: LEDGER_COLUMNS.filter((one) => (one === column ? wanted : view.columns.includes(one))),
                  })
                }
                label={COLUMN_WORDS[column]}
              />
            ))}
          </Row>
        </fieldset>
      </Stack>
    </Dialog>
  );
}
