<script setup lang="ts">
/** Below what is edited as a whole: one more, save, or leave it as it was. */
withDefaults(defineProps<{ dirty: boolean; more?: string }>(), { more: 'Add one' });
const emit = defineEmits<{ add: []; save: []; leave: [] }>();
</script>

<template>
  <p class="row">
    <button type="button" class="link" @click="emit('add')">{{ more }}</button>
    <button v-if="dirty" type="button" class="link" @click="emit('save')">Save</button>
    <button v-if="dirty" type="button" class="link soft" @click="emit('leave')">Leave it as it was</button>
  </p>
</template>
