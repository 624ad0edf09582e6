import { computed, nextTick, ref, watch, type ComputedRef, type Ref } from 'vue';

/**
 * A form over what the server has. It follows the server while nothing is typed; what is typed stays when the server's
 * state is read anew.
 *
 * @param server what the form would be without anything typed: a fresh copy each time
 */
export function useEditable<T>(server: () => T): {
  form: Ref<T>;
  dirty: ComputedRef<boolean>;
  /** Takes what the server has, or one part of it, once the page knows it: after saving, or to drop what was typed. */
  follow: (part?: keyof T) => Promise<void>;
} {
  const said = (value: T): string => JSON.stringify(value);
  const form = ref(server()) as Ref<T>;
  watch(server, (_, before) => {
    if (said(form.value) === said(before)) form.value = server();
  });
  return {
    form,
    dirty: computed(() => said(form.value) !== said(server())),
    async follow(part) {
      await nextTick();
      if (part === undefined) form.value = server();
      else form.value[part] = server()[part];
    },
  };
}
