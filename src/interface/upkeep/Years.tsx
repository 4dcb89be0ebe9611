"use client";

import { BarController, BarElement, CategoryScale, Chart, LinearScale } from "chart.js";
import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { VaultYear } from "@/server/upkeep/findingsPage";
import { years as t } from "./strings";

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

const Board = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 28px 40px;
  margin-top: 12px;
  h3 { font-size: 15px; overflow-wrap: anywhere; }
  .both { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 16px; align-items: center; }
  .chart { position: relative; height: 120px; }
  dl { display: grid; grid-template-columns: auto auto; gap: 0 10px; font-size: 13.5px; line-height: 21px; }
  dt { color: var(--soft); }
  dd { margin: 0; text-align: right; }
  table { width: 100%; margin-top: 6px; font-size: 13.5px; }
  th, td { text-align: left; padding: 1px 8px 1px 0; font-weight: 400; }
`;

/** The same for all, so that a tall bar here is as much as a tall bar there. */
const highest = (years: readonly VaultYear[]): number =>
  Math.max(4, ...years.flatMap(({ months }) => months.map(({ today, later }) => today + later)));

export function Years({ years }: { years: readonly VaultYear[] }) {
  const most = highest(years);
  return (
    <section style={{ marginTop: 44 }}>
      <h2>{t.theYear}</h2>
      <p className="small soft">{t.how}</p>
      <Board>
        {years.map((year) => (
          <section key={year.id} aria-label={year.name}>
            <h3>{year.name}</h3>
            <div className="both">
              <YearChart year={year} most={most} />
              <Numbers year={year} />
            </div>
            <details className="small">
              <summary>{t.asTable}</summary>
              <Table year={year} />
            </details>
          </section>
        ))}
      </Board>
    </section>
  );
}

/** Months end by UTC, where they are counted. */
const monthLetter = (at: number) => new Intl.DateTimeFormat("en-GB", { month: "narrow", timeZone: "UTC" }).format(at);
const monthName = (at: number) =>
  new Intl.DateTimeFormat("en-GB", { month: "long", year: "numeric", timeZone: "UTC" }).format(at);

/** As it comes out in this theme: a canvas does not know how to choose between light and dark. */
function colour(beside: HTMLElement, name: string): string {
  const probe = beside.parentElement!.appendChild(document.createElement("i"));
  probe.style.color = `var(${name})`;
  const { color } = getComputedStyle(probe);
  probe.remove();
  return color;
}

function YearChart({ year, most }: { year: VaultYear; most: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!canvas.current) return;
    const [ink, soft, rule] = ["--ink", "--soft", "--rule"].map((name) => colour(canvas.current!, name));
    const chart = new Chart(canvas.current, {
      type: "bar",
      data: {
        labels: year.months.map(({ at }) => monthLetter(at)),
        datasets: [
          { label: t.today, data: year.months.map(({ today }) => today), backgroundColor: ink },
          {
            label: t.later,
            data: year.months.map(({ later }) => later),
            backgroundColor: "transparent",
            borderColor: soft,
            borderWidth: 1,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        scales: {
          x: {
            stacked: true,
            grid: { display: false },
            border: { color: soft },
            ticks: { color: soft, font: { size: 11 } },
          },
          y: {
            ...{ stacked: true, min: 0, max: most, border: { display: false } },
            ...{ grid: { color: rule }, ticks: { color: soft, font: { size: 11 }, precision: 0, maxTicksLimit: 4 } },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [year, most]);
  return (
    <div className="chart">
      <canvas ref={canvas} role="img" aria-label={t.chartOf(year.name)} />
    </div>
  );
}

function Numbers({ year }: { year: VaultYear }) {
  const now = year.months.at(-1)!;
  return (
    <dl>
      <dt>{t.openNow}</dt>
      <dd>{now.today + now.later}</dd>
      <dt>{t.found}</dt>
      <dd>{year.found}</dd>
      <dt>{t.resolved}</dt>
      <dd>{year.resolved}</dd>
      <dt>{t.half}</dt>
      <dd>{year.halfWithinDays === null ? t.none : t.days(year.halfWithinDays)}</dd>
    </dl>
  );
}

/** For those who do not see the chart. */
function Table({ year }: { year: VaultYear }) {
  return (
    <table>
      <thead>
        <tr>
          <th scope="col">{t.month}</th>
          <th scope="col">{t.today}</th>
          <th scope="col">{t.later}</th>
        </tr>
      </thead>
      <tbody>
        {year.months
          .filter(({ at }) => at >= year.from)
          .map(({ at, today, later }) => (
            <tr key={at}>
              <th scope="row">{monthName(at)}</th>
              <td>{today}</td>
              <td>{later}</td>
            </tr>
          ))}
      </tbody>
    </table>
  );
}
