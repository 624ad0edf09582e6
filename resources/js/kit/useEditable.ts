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
  /** Takes what the server has, once the page knows it: after saving, or to drop what was typed. */
  follow: () => Promise<void>;
} {
  const said = (value: T): string => JSON.stringify(value);
  const form = ref(server()) as Ref<T>;
  let followed = said(form.value);
  watch(server, (now) => {
    if (said(form.value) === followed) form.value = now;
    if (said(form.value) === said(now)) followed = said(now);
  });
  return {
    form,
    dirty: computed(() => said(form.value) !== said(server())),
    async follow() {
      await nextTick();
      form.value = server();
      followed = said(form.value);
    },
  };
}
