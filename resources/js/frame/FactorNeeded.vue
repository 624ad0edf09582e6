<script setup lang="ts">
/** A project that lets nobody in without a second factor, for somebody who has none. */
defineProps<{ name: string }>();
</script>

<template>
  <div class="page">
    <h1>{{ name }} asks for a second factor</h1>
    <p>
      Nobody comes in with a password alone. Set up a code from your phone in
      <RouterLink to="/account">Your account</RouterLink>; it takes a minute, and you are in again.
    </p>
    <p class="soft">What you recorded on this device is kept, and sent once you are in.</p>
  </div>
</template>
