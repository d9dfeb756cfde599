/** Whether a question stands before the page, which then takes no keys. */
export function isDialogOpen(): boolean {
  return document.querySelector('[role="dialog"]') !== null;
}
