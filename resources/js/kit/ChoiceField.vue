<script setup lang="ts" generic="V extends string">
import { useId } from 'vue';

/** One out of a few that all fit in one frame; the chosen part stands in ink. Moved by the arrow keys. */
const chosen = defineModel<V>({ required: true });
defineProps<{ label: string; options: readonly { value: V; label: string }[] }>();
const name = useId();
</script>

<template>
  <fieldset>
    <legend class="label">{{ label }}</legend>
    <span class="frame"
      ><label v-for="o in options" :key="o.value"
        ><input v-model="chosen" type="radio" :name="name" :value="o.value" /><span>{{
          o.label
        }}</span></label
      ></span
    >
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  padding: 0;
}
.frame {
  display: inline-flex;
  border: 1px solid var(--edge);
  border-radius: 6px;
  overflow: hidden;
}
label {
  position: relative;
  display: block;
  cursor: pointer;
}
label + label {
  border-left: 1px solid var(--edge);
}
input {
  position: absolute;
  inset: 0;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
span > label > span {
  display: block;
  padding: 5px 14px;
}
input:checked + span {
  background: var(--ink);
  color: var(--sheet);
}
input:focus-visible + span {
  outline: 2px solid var(--dusk);
  outline-offset: -4px;
}
</style>
