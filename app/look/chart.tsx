import { BarChart, LineChart } from "echarts/charts";
import { GridComponent } from "echarts/components";
import { init, use as register, type EChartsCoreOption } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";

register([BarChart, LineChart, GridComponent, SVGRenderer]);

/** An axis in the ink of the page. */
export const axisIn = (ink: string) =>
  ({
    type: "value",
    scale: true,
    axisLabel: { color: ink },
    axisLine: { lineStyle: { color: ink } },
    splitLine: { show: false },
    nameTextStyle: { color: ink },
  }) as const;

/** A chart drawn in the ink and the letters of the page, as wide as its place. */
export function Chart({
  height,
  label,
  option,
  onPick,
  data,
}: {
  height: number;
  /** What it shows, in words. */
  label: string;
  /** What is drawn, given the ink; the same function as long as it draws the same. */
  option: (ink: string) => EChartsCoreOption;
  onPick?: (at: number) => void;
  data?: Readonly<Record<`data-${string}`, string | number>>;
}) {
  const place = useRef<HTMLDivElement>(null);
  const last = useRef(onPick);
  useEffect(() => {
    last.current = onPick;
  });
  useEffect(() => {
    if (!place.current) return;
    const { color: ink, fontFamily } = getComputedStyle(place.current);
    const chart = init(place.current, null, { renderer: "svg", height });
    chart.setOption({ animation: false, textStyle: { fontFamily, fontSize: 13 } });
    chart.setOption(option(ink));
    chart.on("click", ({ dataIndex }) => last.current?.(dataIndex));
    const watched = new ResizeObserver(() => chart.resize());
    watched.observe(place.current);
    return () => {
      watched.disconnect();
      chart.dispose();
    };
  }, [option, height]);
  return <div ref={place} role="img" aria-label={label} className="text-ink overflow-hidden" {...data} />;
}
