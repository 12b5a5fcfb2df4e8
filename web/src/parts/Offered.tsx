/** What a field offers to choose from while one types. */
export function Offered({ id, of }: { id: string; of: readonly string[] }) {
  return (
    <datalist id={id}>
      {of.map((each) => (
        <option key={each} value={each} />
      ))}
    </datalist>
  );
}
