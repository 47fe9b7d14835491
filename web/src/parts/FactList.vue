<script setup lang="ts">
/** Figures with their names, in columns as they fit; what is not there is left out. */
defineProps<{ facts: Record<string, string | null | undefined> }>()
</script>

<template>
  <dl>
    <template v-for="(value, name) in facts" :key="name">
      <div v-if="value">
        <dt>{{ name }}</dt>
        <dd>{{ value }}</dd>
      </div>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  gap: 2px 20px;
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  border-bottom: 1px solid var(--fog2);
}
dt {
  color: var(--ink2);
  font-size: 14px;
}
dd {
  margin: 0;
  font-weight: 700;
  font-size: 17px;
  text-align: right;
}
</style>
