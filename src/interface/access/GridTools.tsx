"use client";

import { useRouter } from "next/navigation";
import styled from "styled-components";
import { Button, ButtonLink, CheckField, fieldLook, Select } from "../shared/controls";
import { fromLocal, toLocal } from "../shared/localTime";
import type { Column, Grid } from "./grid";
import { SHOWS, type Shows } from "./showing";
import { accessPage as t } from "./strings";

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding: 8px var(--gutter);
  border-bottom: 1px solid var(--rule);
  > select { width: auto; max-width: 158px; }
  .moment { display: flex; gap: 8px; align-items: center; }
  .moment input { width: 212px; }
  .end { display: flex; gap: 8px; margin-left: auto; }
  @media (max-width: 719px) { .wide { display: none; } }
`;

const Narrow = styled.input`${fieldLook} width: 118px;`;

interface GridToolsProps {
  grid: Grid;
  vaults: { id: string; name: string }[];
  asked: number | null;
  rowText: string;
  columnText: string;
  shows: Shows;
  all: boolean;
  /** To choose from where one column is read at a time; otherwise null. */
  columns: readonly Column[] | null;
  column: string | undefined;
  rounds: boolean;
  onRowText: (text: string) => void;
  onColumnText: (text: string) => void;
  onShows: (shows: Shows) => void;
  onAll: (all: boolean) => void;
  onColumn: (key: string) => void;
  onMoment: (moment: number | null) => void;
  onPrint: () => void;
  onCsv: () => void;
}

/** What of the grid is shown, of which moment, and how it is taken along. */
export function GridTools(props: GridToolsProps) {
  const { grid, vaults, asked, rowText, columnText, shows, all, columns, column, rounds } = props;
  const { onRowText, onColumnText, onShows, onAll, onColumn, onMoment, onPrint, onCsv } = props;
  const router = useRouter();
  return (
    <Tools role="group" aria-label={t.filters}>
      {vaults.length > 1 && (
        <Select
          aria-label={t.vault}
          value={grid.vault.id}
          onChange={(event) => router.push(`/access/${event.target.value}`)}
        >
          {vaults.map((vault) => (
            <option key={vault.id} value={vault.id}>
              {vault.name}
            </option>
          ))}
        </Select>
      )}
      <Narrow
        className="wide"
        aria-label={t.filterPlaces}
        placeholder={t.places}
        value={rowText}
        onChange={(event) => onRowText(event.target.value)}
      />
      <Narrow
        className="wide"
        aria-label={t.filterPeopleAndGroups}
        placeholder={t.people}
        value={columnText}
        onChange={(event) => onColumnText(event.target.value)}
      />
      <Select aria-label={t.show} value={shows} onChange={(event) => onShows(event.target.value as Shows)}>
        {Object.entries(SHOWS).map(([value, word]) => (
          <option key={value} value={value}>
            {word}
          </option>
        ))}
      </Select>
      {columns && (
        <Select aria-label={t.forWord} value={column} onChange={(event) => onColumn(event.target.value)}>
          {columns.map((one) => (
            <option key={one.key} value={one.key}>
              {one.name}, {one.note}
            </option>
          ))}
        </Select>
      )}
      <span className="moment wide">
        <span aria-hidden>{t.at}</span>
        <Narrow
          type="datetime-local"
          aria-label={t.at}
          defaultValue={toLocal(asked, grid.zone)}
          key={asked}
          onChange={(event) => {
            const moment = fromLocal(event.target.value, grid.zone);
            if (moment !== null && moment > 0) onMoment(moment);
          }}
        />
      </span>
      <CheckField
        type="checkbox"
        label={t.allPeopleAndGroups}
        checked={all}
        onChange={(event) => onAll(event.target.checked)}
      />
      <div className="end wide">
        {asked !== null && <Button onPress={() => onMoment(null)}>{t.now2}</Button>}
        {rounds && <ButtonLink href={`/access/${grid.vault.id}/rounds`}>{t.rounds}</ButtonLink>}
        <Button onPress={onPrint}>{t.print}</Button>
        <Button onPress={onCsv}>{t.csv}</Button>
      </div>
    </Tools>
  );
}
