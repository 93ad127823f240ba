/** The way out of a form that keeps nothing; Esc takes it too (see escape.ts). */
export function Leave({
  onClick,
  children = 'Leave it',
}: {
  onClick: () => void;
  children?: React.ReactNode;
}) {
  return (
    <button type="button" className="action" data-leave="" onClick={onClick}>
      {children}
    </button>
  );
}
