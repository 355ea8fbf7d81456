<template>
  <div class="desk">
    <div class="sheet stack">
      <h1>There is nothing here</h1>
      <p>The address is wrong, or the page is not for you to see.</p>
      <p><router-link to="/">To the Desk</router-link></p>
    </div>
  </div>
</template>
