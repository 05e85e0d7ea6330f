/** A form whose fields, limits and messages are those of the route it is sent to. */
import { zodResolver } from '@hookform/resolvers/zod';
import type { Route } from '@jutbank/contract/http';
import { useMutation } from '@tanstack/react-query';
import { useRef, type FormEvent } from 'react';
import {
  useForm,
  useWatch,
  type DefaultValues,
  type FieldPath,
  type FieldPathValue,
  type FieldValues,
  type Resolver,
} from 'react-hook-form';
import { ApiProblem, send } from '../../base/api.ts';
import { useUnsaved } from '../../base/unsaved.ts';

/** What a field of the kit is given to stand for a part of the form. */
export interface Bound<V> {
  readonly value: V;
  readonly problem: string | undefined;
  /** @param understood false where what was typed cannot be read: nothing is sent until it can */
  readonly onChange: (value: V, understood?: boolean) => void;
}

export interface ContractForm<T extends FieldValues, A = unknown> {
  readonly values: T;
  /** binds a field of the kit: `<TextInput label="Name" {...form.field('name')} />` */
  readonly field: <N extends FieldPath<T>>(name: N) => Bound<FieldPathValue<T, N>>;
  readonly set: <N extends FieldPath<T>>(name: N, value: FieldPathValue<T, N>) => void;
  readonly onSubmit: (event: FormEvent) => void;
  readonly sending: boolean;
  /** what the last try was answered with, until something is typed again */
  readonly answer: A | undefined;
  /** something stands in it that is not what it began with */
  readonly changed: boolean;
  /** what is wrong with the whole, or with a part that has no field here */
  readonly problem: string | undefined;
  readonly refusal: ApiProblem | undefined;
  readonly reset: (values?: T) => void;
}

interface Options<T, A, P> {
  /** what the form begins with */
  readonly empty: T;
  readonly params?: P;
  /** the version seen, for If-Match */
  readonly version?: number;
  readonly onSent?: (answer: A) => unknown;
  /** it was not sent, or refused: the name of the first field that is wrong, which may have to be brought into sight */
  readonly onHeld?: (name: string) => void;
}

export function useContractForm<P, Q, B, A, I extends FieldValues>(
  route: Route<P, Q, B, A, I>,
  options: Options<I, A, P>,
): ContractForm<I, A>;
/** @param options with `toBody`: what is sent where the form holds something else; its fields keep their names */
export function useContractForm<P, Q, B, A, I extends FieldValues, T extends FieldValues>(
  route: Route<P, Q, B, A, I>,
  options: Options<T, A, P> & { readonly toBody: (values: T) => I },
): ContractForm<T, A>;
export function useContractForm<P, Q, B, A, I extends FieldValues>(
  route: Route<P, Q, B, A, I>,
  {
    empty,
    params,
    version,
    onSent,
    onHeld,
    toBody = (values) => values,
  }: Options<I, A, P> & { toBody?: (values: I) => I },
): ContractForm<I, A> {
  const checked = zodResolver(route.body);
  const resolver: Resolver<I, unknown, B> = (values, context, options) =>
    checked(toBody(values), context, options);
  const form = useForm<I, unknown, B>({ resolver, defaultValues: empty as DefaultValues<I> });
  // every field shows what the form holds: one reading of all of them
  useWatch({ control: form.control });
  const unread = useRef(new Set<string>());
  // names that have a field on the screen: written anew each time it is drawn
  const shown = new Set<string>();
  const { errors, isSubmitted } = form.formState;
  const sending = useMutation({
    mutationFn: () =>
      send(route, {
        body: toBody(form.getValues()),
        ...(params === undefined ? {} : { params }),
        ...(version === undefined ? {} : { version }),
      }),
    onSuccess: (answer) => onSent?.(answer),
    onError: (error) => {
      const pointer = error instanceof ApiProblem ? error.errors[0]?.pointer : undefined;
      if (pointer !== undefined) onHeld?.(pointer.slice(1).replaceAll('/', '.'));
    },
  });
  useUnsaved(form.formState.isDirty && !sending.isPending && !sending.isSuccess);
  const refusal = sending.error instanceof ApiProblem ? sending.error : undefined;
  const wordOn = (name: string): string | undefined =>
    messageIn(name.split('.').reduce<unknown>(inside, errors)) ??
    refusal?.at(`/${name.replaceAll('.', '/')}`);
  const set: ContractForm<I>['set'] = (name, value) => {
    unread.current.delete(name);
    form.setValue(name, value, { shouldDirty: true, shouldValidate: isSubmitted });
    if (sending.isError || sending.isSuccess) sending.reset();
  };
  return {
    values: form.getValues(),
    field: (name) => {
      shown.add(name);
      return {
        value: form.getValues(name),
        problem: wordOn(name),
        onChange: (value, understood = true) => {
          set(name, value);
          if (!understood) unread.current.add(name);
        },
      };
    },
    set,
    onSubmit: (event) => {
      event.preventDefault();
      // one at a time: a second Enter while the first is under way is the same intention
      if (sending.isPending) return;
      // what was typed into a field that is gone holds nothing up: there is nothing left to mend
      const notRead = [...unread.current].find((name) => shown.has(name));
      if (notRead !== undefined) onHeld?.(notRead);
      else
        void form.handleSubmit(
          () => sending.mutate(),
          (wrong) => onHeld?.(messagesIn(wrong)[0]?.[0] ?? ''),
        )(event);
    },
    sending: sending.isPending,
    changed: form.formState.isDirty,
    answer: sending.data,
    get problem() {
      const elsewhere = [
        ...messagesIn(errors),
        ...(refusal?.errors ?? []).map((e) => [e.pointer.slice(1).replaceAll('/', '.'), e.message] as const),
      ].filter(
        ([name]) =>
          ![...shown].some((at) => name === at || name.startsWith(`${at}.`) || at.startsWith(`${name}.`)),
      );
      if (elsewhere.length > 0) return elsewhere.map(([, message]) => message).join('; ');
      return sending.isError && (refusal?.errors.length ?? 0) === 0 ? sending.error.message : undefined;
    },
    refusal,
    reset: (next) => {
      unread.current.clear();
      form.reset(next ?? empty);
    },
  };
}

const inside = (at: unknown, key: string): unknown =>
  at !== null && typeof at === 'object' ? Reflect.get(at, key) : undefined;

/** All messages with the names they stand at. */
function messagesIn(found: unknown, name = ''): (readonly [name: string, message: string])[] {
  if (found === null || typeof found !== 'object') return [];
  const message = inside(found, 'message');
  if (typeof message === 'string') return [[name, message]];
  return Object.entries(found)
    .filter(([key]) => key !== 'ref')
    .flatMap(([key, inner]) => messagesIn(inner, name === '' ? key : `${name}.${key}`));
}
const messageIn = (found: unknown): string | undefined => messagesIn(found)[0]?.[1];
