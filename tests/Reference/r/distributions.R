# Reference values of distributions and their losses, from R's p-, q- and d-functions.
# Run: Rscript tests/Reference/r/distributions.R > tests/Reference/r/distributions.json   (recorded with R 4.2.2)
num <- function(x) paste0("[", paste(format(x, digits = 15, trim = TRUE), collapse = ","), "]")
p <- c(.01, .1, .5, .9, .95, .99)
x <- c(1, 5, 12, 20, 40, 80)
gamma <- function(m, s) { k <- (m / s)^2; b <- s^2 / m
  sprintf('{"kind":"gamma","mean":%g,"deviation":%g,"quantile":%s,"cumulative":%s,"loss":%s}', m, s, num(qgamma(p, k, scale = b)), num(pgamma(x, k, scale = b)),
    num(m * pgamma(x, k + 1, scale = b, lower = FALSE) - x * pgamma(x, k, scale = b, lower = FALSE))) }
loss <- function(d) sapply(x, function(y) sum(pmax(0:5000 - y, 0) * d(0:5000)))
poisson <- function(m) sprintf('{"kind":"poisson","mean":%g,"deviation":%.15g,"quantile":%s,"cumulative":%s,"loss":%s}', m, sqrt(m), num(qpois(p, m)), num(ppois(x, m)), num(loss(function(k) dpois(k, m))))
nb <- function(m, v) { s <- m^2 / (v - m)
  sprintf('{"kind":"negative-binomial","mean":%g,"deviation":%.15g,"quantile":%s,"cumulative":%s,"loss":%s}', m, sqrt(v), num(qnbinom(p, size = s, mu = m)), num(pnbinom(x, size = s, mu = m)), num(loss(function(k) dnbinom(k, size = s, mu = m)))) }
cat('{"p":', num(p), ',"x":', num(x), ',"distributions":[', paste(c(gamma(12, 5), gamma(3, 4), gamma(40, 9), poisson(3), poisson(12), poisson(400), nb(12, 40), nb(2, 9), nb(30, 31)), collapse = ",\n"), "]}\n", sep = "")
