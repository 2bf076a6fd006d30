import { FileText, Table2 } from 'lucide-react';
import { useSettings } from '../../data/settings';
import { toast } from '../../data/toasts';
import { pdfOf } from '../../parts/pdf';
import { saveBlob, saveCsv } from '../../parts/saveText';
import { ToCalendar } from '../../parts/ToCalendar';
import type { PlanAnswer } from '../../workers/plan';
import { daySheets, planCells, planMoments } from './planFiles';
import type { BoatPlan } from './usePlan';

/** The plan to take along: calendar, day sheets, table. */
export function PlanOut({ plan, answer }: { plan: BoatPlan; answer: PlanAnswer }) {
  const { units } = useSettings();
  const { name } = plan.view.boat;
  const failed = () => toast('The file could not be made just now. Try again with a signal.');
  const sheets = () =>
    void pdfOf(daySheets(plan, answer, units)).then((blob) => saveBlob(`${name} day sheets.pdf`, blob), failed);
  return (
    <span className="flex flex-wrap items-center gap-1">
      <ToCalendar name={`${name} plan`} moments={planMoments(plan, answer)} label="Plan as a calendar file" />
      <button
        type="button"
        className="btn btn-ghost px-2"
        aria-label="Day sheets as PDF"
        title="Day sheets as PDF"
        onClick={sheets}
      >
        <FileText size={20} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="btn btn-ghost px-2"
        aria-label="Plan as CSV"
        title="Plan as CSV"
        onClick={() => void saveCsv(`${name} plan.csv`, planCells(plan, answer)).catch(failed)}
      >
        <Table2 size={20} aria-hidden="true" />
      </button>
    </span>
  );
}
