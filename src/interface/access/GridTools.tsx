"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { Act, Button, ButtonLink, CheckField, fieldLook, Select } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { fromLocal, toLocal } from "../shared/localTime";
import { useSettled } from "../shared/useSettled";
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
  .moment > :last-child { width: 262px; }
  .end { display: flex; gap: 8px; margin-left: auto; }
  .more { display: none; }
  @media (max-width: 719px) {
    &:not([data-more]) .wide { display: none; }
    .more { display: block; }
    .end { margin-left: 0; }
  }
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
  // On a phone, or magnified, what is needed less often is folded away.
  const [more, setMore] = useState(false);
  const [moment, setMoment] = useState(() => toLocal(asked, grid.zone));
  const goTo = useSettled((text: string) => onMoment(fromLocal(text, grid.zone)));
  return (
    <Tools role="group" aria-label={t.filters} data-more={more || undefined}>
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
        <MomentField
          label={t.at}
          unseen
          value={moment}
          onText={(text) => {
            setMoment(text);
            goTo(text);
          }}
        />
      </span>
      <CheckField
        type="checkbox"
        label={t.allPeopleAndGroups}
        checked={all}
        onChange={(event) => onAll(event.target.checked)}
      />
      <Act className="more" aria-expanded={more} onPress={() => setMore(!more)}>
        {more ? t.less : t.more}
      </Act>
      <div className="end wide">
        {asked !== null && (
          <Button
            onPress={() => {
              setMoment("");
              onMoment(null);
            }}
          >
            {t.now2}
          </Button>
        )}
        {rounds && <ButtonLink href={`/access/${grid.vault.id}/rounds`}>{t.rounds}</ButtonLink>}
        <Button onPress={onPrint}>{t.print}</Button>
        <Button onPress={onCsv}>{t.csv}</Button>
      </div>
    </Tools>
  );
}
