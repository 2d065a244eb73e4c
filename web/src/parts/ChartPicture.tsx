import { CHART_INK, CHART_RULE, CHART_TEXT, type ChartData, type ChartPlan, chartPlan } from '@grivo/core';

/** A chart as readers get it: the same plan, drawn on the page with its own letters. */
export function ChartPicture({ data, language, says }: { data: ChartData; language: string; says: string }) {
  if (data.labels.length === 0 || data.series.length === 0) return null;
  const plan = chartPlan(data, language);
  const { width, height } = plan;
  return (
    <svg
      role="img"
      aria-label={says || 'A chart'}
      viewBox={`-16 -16 ${width + 32} ${height + 32}`}
      className="block w-full bg-white"
      fontSize={CHART_TEXT}
      fontFamily="var(--font-ui)"
      fill={CHART_INK}
    >
      <Ticks plan={plan} />
      {plan.series.map(({ name, colour, bars, points }) => (
        <g key={name} fill={colour}>
          {bars.map((bar) => (
            <rect key={`${bar.x} ${bar.y}`} x={bar.x} y={bar.y} width={bar.width} height={bar.height} />
          ))}
          {points.map(({ x, y }) => (
            <circle key={x} cx={x} cy={y} r={4.5} />
          ))}
          {plan.joined ? (
            <polyline
              points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
              fill="none"
              stroke={colour}
              strokeWidth={2}
            />
          ) : null}
        </g>
      ))}
      {plan.frame.map((line) => (
        <line key={`${line.x1} ${line.y1}`} {...line} stroke={CHART_INK} />
      ))}
      {[...plan.labels, ...plan.figures].map(({ text, x, y, align }) => (
        <text key={`${text} ${x} ${y}`} x={x} y={y} textAnchor={align}>
          {text}
        </text>
      ))}
      {plan.key.map(({ text, colour, x, y }) => (
        <g key={text}>
          <rect x={x} y={y - 11} width={12} height={12} fill={colour} />
          <text x={x + 18} y={y}>
            {text}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Round figures and the lines at them. */
function Ticks({ plan }: { plan: ChartPlan }) {
  const { width, height, ticks, lies, key, frame } = plan;
  const [top, bottom, left] = [key.length > 0 ? 34 : 8, height - 30, frame[0]!.x1];
  return ticks.map(({ at, says }) => (
    <g key={at}>
      <line
        x1={lies ? at : left}
        x2={lies ? at : width - 8}
        y1={lies ? top : at}
        y2={lies ? bottom : at}
        stroke={CHART_RULE}
      />
      <text x={lies ? at : left - 8} y={lies ? bottom + 20 : at + 5} textAnchor={lies ? 'middle' : 'end'}>
        {says}
      </text>
    </g>
  ));
}
