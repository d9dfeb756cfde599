/** The cautions of the substances at hand, and who decides. */
export function Cautions({ cautions }: { readonly cautions: readonly string[] }) {
  if (cautions.length === 0) return null;
  return (
    <section className="rounded border-l-4 border-straw bg-straw-wash px-4 py-3 text-[15px]">
      <h2 className="font-bold">Take care</h2>
      <ul className="mt-1 list-disc space-y-1 pl-5">
        {cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
      <p className="mt-2">Local rules, the safety data sheet and the responsible person decide.</p>
    </section>
  );
}
