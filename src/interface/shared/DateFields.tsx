"use client";

/** Dates and times as Galtry writes them, day first and by 24 hours, whatever the browser is set to. */
import { type CalendarDate, parseDate, parseDateTime, parseTime } from "@internationalized/date";
import { CalendarDays, ChevronLeft, ChevronRight } from "lucide-react";
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import {
  Button as AriaButton,
  TimeField as AriaTimeField,
  Calendar,
  CalendarCell,
  CalendarGrid,
  CalendarGridBody,
  CalendarGridHeader,
  CalendarHeaderCell,
  DateInput,
  DatePicker,
  DateRangePicker,
  DateSegment,
  Dialog,
  Heading,
  I18nProvider,
  RangeCalendar,
} from "react-aria-components";
import { Below } from "./controls";
import { Above, Box, Leaf } from "./dateLook";
import { wholeMoment } from "./partialDate";
import { dateFields as t } from "./strings";
import { useCompleted } from "./useCompleted";
import { useSettled } from "./useSettled";

/** Weeks begin on Monday, as everywhere in Galtry. */
const Month = () => (
  <CalendarGrid weekdayStyle="short">
    <CalendarGridHeader>{(day) => <CalendarHeaderCell>{day}</CalendarHeaderCell>}</CalendarGridHeader>
    <CalendarGridBody>{(date) => <CalendarCell className="day" date={date} />}</CalendarGridBody>
  </CalendarGrid>
);

const MonthHead = () => (
  <div className="month">
    <AriaButton slot="previous" aria-label={t.previousMonth}>
      <ChevronLeft size={18} aria-hidden />
    </AriaButton>
    <Heading level={2} />
    <AriaButton slot="next" aria-label={t.nextMonth}>
      <ChevronRight size={18} aria-hidden />
    </AriaButton>
  </div>
);

const Segments = ({ slot }: { slot?: string }) => (
  <DateInput slot={slot} className="input">
    {(segment) => <DateSegment className="segment" segment={segment} data-type={segment.type} />}
  </DateInput>
);

/** Emptied where there is something, and chosen from a calendar. */
const DateActs = ({ label, onClear }: { label: string; onClear: (() => void) | null }) => (
  <span className="acts">
    {onClear && (
      <AriaButton slot={null} onPress={onClear} aria-label={t.clear(label)}>
        {t.clearWord}
      </AriaButton>
    )}
    <AriaButton aria-label={t.calendar(label)}>
      <CalendarDays size={17} aria-hidden />
    </AriaButton>
  </span>
);

interface Around {
  label: string;
  /** The label is for those who hear it only. */
  unseen?: boolean;
  hint?: ReactNode;
  wrong?: string | null;
  autoFocus?: boolean;
}

interface MomentProps extends Around {
  /** "2026-05-03T18:00", or empty for no moment. */
  value: string;
  onText: (text: string) => void;
  /** Hours and minutes where only the day is given. */
  time?: string;
}

/** A day and a time in the organisation's zone. What is left open of it is completed when the field is left. */
export function MomentField({ label, unseen, hint, wrong, value, onText, time = "18:00", autoFocus }: MomentProps) {
  const below = useId();
  const { field, key, clear, complete } = useCompleted(
    value,
    (filled) => wholeMoment(filled, time, new Date()),
    onText,
  );
  return (
    <I18nProvider locale="en-GB">
      <DatePicker
        key={key}
        value={value === "" ? null : parseDateTime(value.slice(0, 16))}
        onChange={(date) => onText(date ? date.toString().slice(0, 16) : "")}
        granularity="minute"
        hourCycle={24}
        shouldForceLeadingZeros
        placeholderValue={parseDateTime(`${new Date().toISOString().slice(0, 10)}T${time}`)}
        isInvalid={Boolean(wrong)}
        autoFocus={autoFocus}
        firstDayOfWeek="mon"
        aria-describedby={wrong || hint ? below : undefined}
        onBlur={complete}
      >
        <Above className={unseen ? "unseen" : undefined}>{label}</Above>
        <Box ref={field}>
          <Segments />
          <DateActs label={label} onClear={value === "" ? null : clear} />
        </Box>
        <FieldNote id={below} {...{ hint, wrong }} />
        <OneMonth label={label} />
      </DatePicker>
    </I18nProvider>
  );
}

interface DayProps extends Around {
  /** "2026-05-03", or empty. */
  value: string;
  onText: (text: string) => void;
  disabled?: boolean;
  required?: boolean;
}

/** A day, of a paper or a contract. */
export function DayField({ label, hint, wrong, value, onText, disabled, required }: DayProps) {
  const below = useId();
  const { field, key, clear, complete } = useCompleted(
    value,
    (filled) => wholeMoment(filled, "00:00", new Date())?.slice(0, 10) ?? null,
    onText,
  );
  return (
    <I18nProvider locale="en-GB">
      <DatePicker
        key={key}
        onBlur={complete}
        value={/^\d{4}-\d{2}-\d{2}$/.test(value) ? parseDate(value) : null}
        onChange={(day) => onText(day?.toString() ?? "")}
        shouldForceLeadingZeros
        isInvalid={Boolean(wrong)}
        isDisabled={disabled}
        isRequired={required}
        validationBehavior="aria"
        firstDayOfWeek="mon"
        aria-describedby={wrong || hint ? below : undefined}
      >
        <Above>{label}</Above>
        <Box ref={field}>
          <Segments />
          <DateActs label={label} onClear={value === "" ? null : clear} />
        </Box>
        <FieldNote id={below} {...{ hint, wrong }} />
        <OneMonth label={label} />
      </DatePicker>
    </I18nProvider>
  );
}

const OneMonth = ({ label }: { label: string }) => (
  <Leaf>
    <Dialog aria-label={label} style={{ outline: "none" }}>
      <Calendar firstDayOfWeek="mon">
        <MonthHead />
        <Month />
      </Calendar>
    </Dialog>
  </Leaf>
);

function FieldNote({ id, hint, wrong }: { id: string; hint?: ReactNode; wrong?: string | null }) {
  if (wrong)
    return (
      <Below id={id} data-wrong role="alert">
        {wrong}
      </Below>
    );
  return hint ? <Below id={id}>{hint}</Below> : null;
}

interface TimeProps extends Around {
  /** "09:00". */
  value: string;
  onText: (text: string) => void;
}

export function TimeField({ label, hint, wrong, value, onText }: TimeProps) {
  const below = useId();
  return (
    <I18nProvider locale="en-GB">
      <AriaTimeField
        value={parseTime(value)}
        onChange={(time) => time && onText(time.toString().slice(0, 5))}
        hourCycle={24}
        shouldForceLeadingZeros
        isInvalid={Boolean(wrong)}
        aria-describedby={wrong || hint ? below : undefined}
      >
        <Above>{label}</Above>
        <Box>
          <Segments />
        </Box>
        <FieldNote id={below} {...{ hint, wrong }} />
      </AriaTimeField>
    </I18nProvider>
  );
}

interface DaysProps {
  label: string;
  /** "2026-05-03", both or neither. */
  from: string | null;
  to: string | null;
  onDays: (from: string | null, to: string | null) => void;
}

/** From one day to another, both included. */
export function DaysField({ label, from, to, onDays }: DaysProps) {
  const [drawn, setDrawn] = useState(0);
  const said = useRef(`${from} ${to}`);
  // Another period than the one that was chosen here last: by a link, or by going back.
  useEffect(() => {
    if (said.current === `${from} ${to}`) return;
    said.current = `${from} ${to}`;
    setDrawn((count) => count + 1);
  }, [from, to]);
  const say = (first: string | null, last: string | null) => {
    said.current = `${first} ${last}`;
    onDays(first, last);
  };
  const later = useSettled((days: [string, string]) => say(...days));
  const day = (text: string | null): CalendarDate | null => (text === null ? null : parseDate(text));
  const [start, end] = [day(from ?? to), day(to ?? from)];
  return (
    <I18nProvider locale="en-GB">
      <DateRangePicker
        key={drawn}
        defaultValue={start && end ? { start, end } : null}
        onChange={(days) => days && later([days.start.toString(), days.end.toString()])}
        shouldForceLeadingZeros
        firstDayOfWeek="mon"
      >
        <Above>{label}</Above>
        <Box>
          <Segments slot="start" />
          <span className="to" aria-hidden>
            –
          </span>
          <Segments slot="end" />
          <DateActs
            label={label}
            onClear={
              start &&
              (() => {
                setDrawn(drawn + 1);
                say(null, null);
              })
            }
          />
        </Box>
        <Leaf>
          <Dialog aria-label={label} style={{ outline: "none" }}>
            <RangeCalendar firstDayOfWeek="mon">
              <MonthHead />
              <Month />
            </RangeCalendar>
          </Dialog>
        </Leaf>
      </DateRangePicker>
    </I18nProvider>
  );
}
