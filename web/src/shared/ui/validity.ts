/**
 * In place of the browser's own bubble: the message stands below its field already, so that the first field at fault is
 * only gone to.
 */
export function goToFirstFault(
  e: React.InvalidEvent<HTMLInputElement> | React.FormEvent<HTMLInputElement>,
) {
  e.preventDefault();
  const fields = [...(e.currentTarget.form?.elements ?? [])] as HTMLInputElement[];
  fields.find((f) => f.validationMessage)?.focus();
}
