// The bar takes less room once the page has moved.
const bar = document.querySelector('.bar')
const fit = () => bar.classList.toggle('small', window.scrollY > 60)
addEventListener('scroll', fit, { passive: true })
fit()
