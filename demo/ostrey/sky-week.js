// The bar takes less room once the page has moved. What it gives up the page loses as well, so it changes back later than it
// changed: else it would go to and fro where it stands.
const bar = document.querySelector('.bar')
const fit = () => {
  if (window.scrollY > 90) bar.classList.add('small')
  else if (window.scrollY < 40) bar.classList.remove('small')
}
addEventListener('scroll', fit, { passive: true })
fit()
