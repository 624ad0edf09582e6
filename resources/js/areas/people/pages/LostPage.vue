<template>
  <main class="page">
    <h1>Not found</h1>
    <p>There is nothing at this address. <RouterLink to="/">To your projects</RouterLink></p>
  </main>
</template>
