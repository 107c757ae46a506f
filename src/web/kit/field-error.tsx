/** What is wrong with a field, under it. */
export function FieldError({ id, message }: { readonly id?: string; readonly message: string | undefined }) {
  return (
    <p id={id} role="alert" className="field-error">
      {message}
    </p>
  );
}
