/** The book's torque with its range, and the one that was entered, N·m on a logarithmic line. */
export function TorqueScale({
  book,
  low,
  high,
  entered,
}: {
  book: number;
  low: number;
  high: number;
  entered: number;
}) {
  const from = Math.log(Math.min(low, entered) / 1.6);
  const to = Math.log(Math.max(high, entered) * 1.6);
  const x = (nm: number) => 10 + (280 * (Math.log(nm) - from)) / (to - from);
  return (
    <svg className="torque-scale" viewBox="0 0 300 54" aria-hidden="true">
      <path className="axis" d="M10 26H290" />
      <rect className="range" x={x(low)} y="20" width={Math.max(4, x(high) - x(low))} height="12" />
      <text x={x(book)} y="50" textAnchor="middle">
        {Number(book.toFixed(1))} book
      </text>
      <path className="entered" d={`M${x(entered)} 14v24`} />
      <text className="entered" x={x(entered)} y="10" textAnchor="middle">
        {Number(entered.toFixed(1))} N·m
      </text>
    </svg>
  );
}
