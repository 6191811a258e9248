/**
 * A page within the page that may do nothing. It is another frame for other words: in one and the same each
 * change would be a place in the history, and Back would go through all of them before it leaves.
 */
export function Framed({
  title,
  html,
  className,
  width,
}: {
  title: string;
  html: string;
  className: string;
  /** In CSS pixels, where it is not as wide as there is room. */
  width?: number;
}) {
  return (
    <iframe
      key={html}
      title={title}
      sandbox=""
      srcDoc={html}
      className={className}
      style={width === undefined ? undefined : { width }}
    />
  );
}
