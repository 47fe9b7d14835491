<script setup lang="ts">
/** Ready-made starting points, family by family. */
defineProps<{ kinds: { name: string; starts: { key: string; name: string; words: string }[] }[] }>()
defineEmits<{ begin: [key: string] }>()
</script>

<template>
  <section v-for="kind in kinds" :key="kind.name">
    <h3>{{ kind.name }}</h3>
    <div class="kinds">
      <button v-for="start in kind.starts" :key="start.key" @click="$emit('begin', start.key)">
        <b>{{ start.name }}</b><span>{{ start.words }}</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
h3 {
  margin: 12px 0 6px;
  font-size: 17px;
  color: var(--ink2);
}
.kinds {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px;
}
.kinds button {
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-height: 72px;
  padding: 12px 16px;
  border: 2px solid var(--fog3);
  border-radius: 12px;
  background: var(--white);
  text-align: left;
  cursor: pointer;
}
.kinds button:hover {
  border-color: var(--russet);
}
.kinds b {
  font: 600 18px/1.2 var(--display);
}
.kinds span {
  font-size: 15px;
  line-height: 1.25;
}
</style>
