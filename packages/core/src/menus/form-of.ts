/** Forms of made menus, of any kind. */
import type { MadeWords } from '../contract/index.ts'
import type { MadeMenuForm } from '../site/index.ts'
import { readField, type FormField, type MadeForm } from './forms/form.ts'
import { forms } from './forms/index.ts'

export type FormKind = MadeMenuForm['kind']

const ofKind = (kind: FormKind) => forms[kind] as MadeForm<MadeMenuForm>

export const formOf = ({ kind }: MadeMenuForm): MadeForm<MadeMenuForm> => ofKind(kind)

export const formKinds = Object.keys(forms) as FormKind[]

export const fieldsOf = (kind: FormKind): Record<string, FormField> => ofKind(kind).fields

const first = (field: FormField) => ('options' in field ? field.options[0]! : field.usual)

/** A new menu's form. */
export const freshForm = (kind: FormKind): MadeMenuForm =>
  ({ kind, ...Object.fromEntries(Object.entries(fieldsOf(kind)).map(([name, field]) => [name, first(field)])) }) as MadeMenuForm

export const formWords = (form: MadeMenuForm): Record<string, string> =>
  Object.fromEntries(Object.keys(fieldsOf(form.kind)).map((name) => [name, String(form[name as keyof MadeMenuForm])]))

/** The form that an earlier handover wrote; missing or invalid settings are as in a new one. Null for an unknown kind. */
export function readForm({ form, words }: MadeWords): MadeMenuForm | null {
  const kind = formKinds.find((k) => k === form)
  if (!kind) return null
  const read = (name: string, field: FormField) => (words[name] === undefined ? undefined : readField(field, words[name])) ?? first(field)
  return { kind, ...Object.fromEntries(Object.entries(fieldsOf(kind)).map(([name, field]) => [name, read(name, field)])) } as MadeMenuForm
}
