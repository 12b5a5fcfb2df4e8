import NativeSelect from "@mui/material/NativeSelect";

/** A choice among what lists of topics know by a name and words. */
export function TopicChoice<K extends string>(props: {
  label: string;
  value: K;
  of: readonly (readonly [K, string])[];
  put: (value: K) => void;
}) {
  const { label, value, of, put } = props;
  return (
    <NativeSelect
      value={value}
      inputProps={{ "aria-label": label }}
      onChange={(event) => {
        const wanted = of.find(([name]) => name === event.target.value);
        if (wanted) put(wanted[0]);
      }}
      sx={{ fontSize: 13, "& select": { py: 0.25 }, minWidth: 0 }}
    >
      {of.map(([name, words]) => (
        <option key={name} value={name}>
          {words}
        </option>
      ))}
    </NativeSelect>
  );
}
