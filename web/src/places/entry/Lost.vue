<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <div class="lost">
    <h1>Nothing here</h1>
    <p>That place does not exist. <RouterLink to="/sauces">Back to the sauces.</RouterLink></p>
  </div>
</template>

<style scoped>
.lost {
  padding: 32px;
}
</style>
