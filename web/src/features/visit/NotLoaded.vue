<template>
  <p class="away" role="alert">
    This view had not been loaded when the server went away. What you write is kept on this tablet;
    open the view again when the server is back.
  </p>
</template>

<style scoped>
.away {
  padding: 30px 20px;
  max-width: 60ch;
  font-size: 18px;
}
</style>
