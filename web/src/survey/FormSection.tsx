import type { ReactNode } from "react";

type FormSectionProps = {
  title: string;
  says: string;
  beside?: ReactNode; // to the right of the title
  children: ReactNode;
};

/** FormSection is one section of a survey. */
export function FormSection({ title, says, beside, children }: FormSectionProps) {
  return (
    <section className="contained mb-3 border-base-300 border-b pb-1">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-3">
        <h2 className="font-semibold text-lg">{title}</h2>
        <p className="min-w-52 flex-1 text-secondary text-sm">{says}</p>
        {beside}
      </div>
      {children}
    </section>
  );
}
