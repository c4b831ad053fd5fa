import { createContext, useContext } from "react";
import type { UseFormRegisterReturn } from "react-hook-form";
import { quantityOfUnit } from "#core/kernel/units/quantities";
import type { Quantity } from "#core/kernel/units/quantities";

/** A form that keeps what its fields hold. */
export interface OwnFields {
  register: (name: string, quantity?: Quantity) => UseFormRegisterReturn;
}
export const FieldsContext = createContext<OwnFields | null>(null);

interface FieldLike {
  name?: string | undefined;
  value?: unknown;
  type?: string | undefined;
  checked?: boolean | undefined;
}

/**
 * What ties a plain field to the form that keeps it; nothing for a field that somebody else holds, and for files, which nobody can keep.
 * @param unit that stands beside it
 */
export function useOwnField({ name, value, type, checked }: FieldLike, unit?: string): Partial<UseFormRegisterReturn> {
  const own = useContext(FieldsContext);
  if (!own || !name || value !== undefined || checked !== undefined || type === "file" || type === "hidden") return {};
  return own.register(name, (unit && quantityOfUnit(unit)) || undefined);
}
