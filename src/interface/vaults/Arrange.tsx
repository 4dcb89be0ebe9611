"use client";

import { COLUMN_WORDS, LEDGER_COLUMNS, type LedgerView } from "@/core/ledgerView";
import { CheckField, ChoiceField, Row, Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";

interface ArrangeProps {
  view: LedgerView;
  onChange: (view: LedgerView) => void;
  onClose: () => void;
}

/** Columns, order and what stands together: kept for the person, on every device. */
export function Arrange({ view, onChange, onClose }: ArrangeProps) {
  return (
    <Dialog title="Arrange the ledger" open onClose={onClose}>
      <Stack>
        <ChoiceField
          label="In order of"
          value={view.sort}
          onText={(sort) => onChange({ ...view, sort: sort as LedgerView["sort"] })}
          hint={view.sort === "own" ? "Alt with the up and down arrows moves a row" : undefined}
        >
          <option value="name">name</option>
          <option value="used">last use</option>
          <option value="new">newness</option>
          <option value="own">your own</option>
        </ChoiceField>
        <ChoiceField
          label="Together by"
          value={view.group}
          onText={(group) => onChange({ ...view, group: group as LedgerView["group"] })}
        >
          <option value="folder">folder</option>
          <option value="kind">kind</option>
          <option value="tag">tag</option>
          <option value="none">nothing: one long list</option>
        </ChoiceField>
        <fieldset>
          <legend style={{ fontSize: 14, marginBottom: 6 }}>Columns</legend>
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
