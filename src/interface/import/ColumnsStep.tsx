"use client";

import { type ReactNode, useEffect, useState } from "react";
import styled from "styled-components";
import { HIDDEN, MEANINGS, type Meaning, wrongMeanings } from "@/core/formats/columns";
import type { Kind } from "@/core/kinds/kind";
import { runCommand, runQuery } from "../shared/ask";
import { Button, CheckField, ChoiceField, Notice, Row, Select, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import type { OpenedEntries, OpenedTable } from "./import.worker";
import { columnsStep as t } from "./strings";

const Columns = styled.table`
  width: 100%;
  border-collapse: collapse;
  border-top: 3px solid var(--ink);
  th, td { padding: 8px 14px 8px 0; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; }
  thead th { color: var(--soft); font-size: 13.5px; }
  td.samples { color: var(--soft); font: 13.5px/20px var(--mono); }
  td.means { width: 240px; }
  @media (max-width: 719px) {
    thead { display: none; }
    tr { display: grid; padding: 10px 0; border-bottom: 1px solid var(--rule); }
    th, td { border: 0; padding: 2px 0; }
    td.means { width: auto; }
  }
`;

const SEPARATORS: Record<string, string> = { ",": "commas", ";": "semicolons", "\t": "tabs", "|": "strokes" };
const FORMATS: Record<OpenedEntries["format"], string> = {
  "credential exchange": t.credentialExchangeJsonItNames,
  "one-time codes": t.otpauthAddressesOnePerLine,
  contacts: t.vcardEachBecomesAContact,
};

interface ColumnsStepProps {
  file: string;
  opened: OpenedTable | OpenedEntries;
  where: ReactNode;
  busy: boolean;
  onPart: (part: number) => void;
  /** Null for who makes no kinds. */
  onMakeKind: ((kind: Kind) => Promise<boolean>) | null;
  onLook: (meanings: Meaning[], keepFolders: boolean) => void;
  onAgain: () => void;
}

/** What is in the file, and what of it becomes what. */
export function ColumnsStep({ file, opened, where, busy, onPart, onMakeKind, onLook, onAgain }: ColumnsStepProps) {
  const columns = opened.shape === "table" ? opened.columns : [];
  const [meanings, setMeanings] = useState<Meaning[]>(() => columns.map((column) => column.guess));
  const [keepFolders, setKeepFolders] = useState(true);
  const refused = opened.shape === "table" ? wrongMeanings(meanings) : null;
  const rows = t.rows(opened.rows);
  return (
    <Form
      verb={t.checkTheRows}
      onSend={() => onLook(meanings, keepFolders)}
      running={busy}
      unready={refused !== null}
      wrong={refused}
      acts={<Button onPress={onAgain}>{t.chooseAnotherFile}</Button>}
    >
      {opened.shape === "entries" ? (
        <>
          <p>
            <b>{file}</b>: {rows}, {FORMATS[opened.format]}.
          </p>
          {opened.missing.map((kind) => (
            <MissingKind key={kind.id} kind={kind} onMake={onMakeKind} />
          ))}
        </>
      ) : (
        <>
          <p>
            {t.whatIsEach(
              <b>{file}</b>,
              rows,
              opened.format,
              opened.encoding,
              opened.separator !== null && t.separatedBy(SEPARATORS[opened.separator] ?? `“${opened.separator}”`),
              opened.format === "CSV" ? t.column : t.part,
            )}
          </p>
          {opened.parts.length > 1 && (
            <ChoiceField
              label={t.thePartThatRepeats}
              value={String(opened.part)}
              onText={(text) => onPart(Number(text))}
              hint={t.eachOfTheseBecomesAnEntry}
            >
              {opened.parts.map((part, at) => (
                <option key={part.name} value={at}>
                  {t.times(part.name, part.rows)}
                </option>
              ))}
            </ChoiceField>
          )}
          <KeptMappings
            header={columns.map((column) => column.name)}
            meanings={meanings}
            keepFolders={keepFolders}
            onTake={(taken) => {
              setMeanings(taken.meanings);
              setKeepFolders(taken.keepFolders);
            }}
          />
          <Columns>
            <thead>
              <tr>
                <th scope="col">{t.column2}</th>
                <th scope="col">{t.forExample}</th>
                <th scope="col">{t.becomes}</th>
              </tr>
            </thead>
            <tbody>
              {columns.map((column, i) => (
                <tr key={i}>
                  <th scope="row">{column.name}</th>
                  <td className="samples">
                    {HIDDEN.has(meanings[i]!)
                      ? column.samples.length > 0 && "••••••••••••"
                      : column.samples.map((sample) => <div key={sample}>{sample}</div>)}
                  </td>
                  <td className="means">
                    <Select
                      aria-label={t.becomes2(column.name)}
                      value={meanings[i]}
                      onChange={(event) =>
                        setMeanings(meanings.map((one, at) => (at === i ? (event.target.value as Meaning) : one)))
                      }
                    >
                      {MEANINGS.map(({ meaning, label }) => (
                        <option key={meaning} value={meaning}>
                          {label}
                        </option>
                      ))}
                    </Select>
                  </td>
                </tr>
              ))}
            </tbody>
          </Columns>
        </>
      )}
      {where}
      {(opened.folders || meanings.includes("folder")) && (
        <CheckField
          label={t.keepTheFilesFolders}
          hint={t.foldersThatDoNotExistYetAre}
          checked={keepFolders}
          onTick={setKeepFolders}
        />
      )}
    </Form>
  );
}

interface Mapping {
  id: string;
  name: string;
  header: string[];
  meanings: Meaning[];
  keepFolders: boolean;
}

interface KeptProps {
  header: string[];
  meanings: Meaning[];
  keepFolders: boolean;
  onTake: (taken: Pick<Mapping, "meanings" | "keepFolders">) => void;
}

const same = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every((one, i) => one === b[i]);

/** What was said of a file like it before: taken at once where the columns are the same, and kept under a name. */
function KeptMappings({ header, meanings, keepFolders, onTake }: KeptProps) {
  const [kept, setKept] = useState<Mapping[]>([]);
  const [taken, setTaken] = useState<string | null>(null);
  const [naming, setNaming] = useState(false);
  const [name, setName] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const load = () =>
    runQuery("vaults.mappingList", {}).then((answer) => {
      const all = answer.ok ? answer.result.filter((one) => same(one.header, header)) : [];
      setKept(all);
      return all;
    });
  useEffect(() => {
    void load().then(([first]) => {
      if (!first) return;
      onTake(first);
      setTaken(first.name);
    });
  }, []);
  const keep = async () => {
    const answer = await runCommand("vaults.saveMapping", { name, mapping: { header, meanings, keepFolders } });
    if (!answer.ok) return setWrong(answer.refused.message);
    setNaming(false);
    setTaken(name);
    void load();
  };
  return (
    <Row style={{ gap: 12, alignItems: "end" }}>
      {kept.length > 0 && (
        <ChoiceField
          label={t.useSavedSettings}
          value={kept.find((one) => one.name === taken)?.id ?? ""}
          onText={(id) => {
            const one = kept.find((each) => each.id === id);
            if (!one) return;
            onTake(one);
            setTaken(one.name);
          }}
        >
          <option value="">{t.none}</option>
          {kept.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </ChoiceField>
      )}
      {kept.some((one) => one.name === taken) && (
        <Button
          onPress={async () => {
            await runCommand("vaults.deleteMapping", { mappingId: kept.find((one) => one.name === taken)!.id });
            setTaken(null);
            void load();
          }}
        >
          {t.deleteWord(taken)}
        </Button>
      )}
      {naming ? (
        <>
          <TextField
            label={t.nameOfTheSettings}
            value={name}
            onText={setName}
            wrong={wrong}
            hint={t.forTheNextFileLikeThisOne}
          />
          <Button onPress={keep} isDisabled={name.trim() === ""}>
            {t.save}
          </Button>
        </>
      ) : (
        <Button onPress={() => setNaming(true)}>{t.saveTheseSettingsForTheNext}</Button>
      )}
    </Row>
  );
}

/** A kind of another Galtry that is not here: made from the file, or its entries come in as plain ones. */
function MissingKind({ kind, onMake }: { kind: Kind; onMake: ((kind: Kind) => Promise<boolean>) | null }) {
  const [making, setMaking] = useState(false);
  return (
    <Notice>
      {t.theFileHasEntriesOfTheKind(<b>{kind.name}</b>)}
      {onMake ? (
        <Row style={{ marginTop: 8 }}>
          <Button
            isDisabled={making}
            onPress={async () => {
              setMaking(true);
              if (!(await onMake(kind))) setMaking(false);
            }}
          >
            {t.createTheKind(kind.name)}
          </Button>
        </Row>
      ) : (
        t.anAdministratorCanCreateIt
      )}
    </Notice>
  );
}
