import { LineChart } from "echarts/charts";
import { GridComponent } from "echarts/components";
import { init, use as register } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";
import { moneyText } from "~core/quantity";

register([LineChart, GridComponent, SVGRenderer]);

const HEIGHT = 132;

/** Price against days: each step down is a day sooner paid for. The one that is looked at is filled. */
export default function TradeChart({
  points,
  at,
  choose,
}: {
  points: readonly { cents: number; days: number }[];
  at: number;
  choose: (at: number) => void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const last = useRef(choose);
  useEffect(() => {
    last.current = choose;
  });
  useEffect(() => {
    if (!place.current) return;
    const { color: ink, fontFamily } = getComputedStyle(place.current);
    const chart = init(place.current, null, { renderer: "svg", height: HEIGHT });
    const axis = {
      type: "value",
      scale: true,
      axisLabel: { color: ink },
      axisLine: { lineStyle: { color: ink } },
      splitLine: { show: false },
      nameTextStyle: { color: ink },
    } as const;
    chart.setOption({
      animation: false,
      textStyle: { fontFamily, fontSize: 13 },
      grid: { left: 52, right: 14, top: 10, bottom: 36 },
      xAxis: { ...axis, name: "days", nameLocation: "middle", nameGap: 22, minInterval: 1 },
      yAxis: {
        ...axis,
        axisLabel: { color: ink, formatter: (cents: number) => moneyText(cents).replace(/\.00$/, "") },
      },
      series: [
        {
          type: "line",
          step: "start",
          symbol: "circle",
          symbolSize: (_value: unknown, { dataIndex }: { dataIndex: number }) => (dataIndex === at ? 16 : 10),
          lineStyle: { color: ink, width: 1.5 },
          itemStyle: { color: ink },
          data: points.map(({ days, cents }) => [days, cents]),
        },
      ],
    });
    chart.on("click", ({ dataIndex }) => last.current(dataIndex));
    const watched = new ResizeObserver(() => chart.resize());
    watched.observe(place.current);
    return () => {
      watched.disconnect();
      chart.dispose();
    };
  }, [points, at]);
  return (
    <div
      ref={place}
      role="img"
      aria-label={wordsOf(points)}
      className="text-ink overflow-hidden"
      data-trade-chart={points.length}
    />
  );
}

const wordsOf = (points: readonly { cents: number; days: number }[]): string =>
  `Price against days: ${points.map(({ cents, days }) => `${moneyText(cents)} in ${days}`).join(", ")}`;
