# Draws series of eight kinds, takes R's own of periods 4 and 12, holds the last values of each back, and forecasts them by
# ets (stlf where a period is long) and auto.arima (on what stl leaves of a long one). Writes all of it as JSON.
#   Rscript bench_forecast.R OUT SEED MANY
suppressMessages(library(forecast))
args <- commandArgs(TRUE)
out <- args[1]; set.seed(as.integer(args[2])); many <- as.integer(args[3])
num <- function(x) paste0("[", paste(ifelse(is.na(x), "null", format(as.numeric(x), digits = 7, trim = TRUE, scientific = FALSE)), collapse = ","), "]")
rows <- c()
took <- c(0, 0)
forecasts <- function(y, h) {
  long <- frequency(y) > 24
  a <- system.time(e <- if (long && length(y) > 2 * frequency(y)) stlf(y, h = h, level = c(80, 95)) else forecast(ets(if (long) ts(as.numeric(y)) else y), h = h, level = c(80, 95)))["elapsed"]
  b <- system.time(m <- if (long && length(y) > 2 * frequency(y)) forecast(stlm(y, method = "arima"), h = h, level = c(80, 95)) else forecast(auto.arima(if (long) ts(as.numeric(y)) else y), h = h, level = c(80, 95)))["elapsed"]
  took <<- took + c(a, b)
  list(ets = e, arima = m)
}
add <- function(kind, name, y, h) {
  n <- length(y)
  train <- ts(as.numeric(y)[1:(n - h)], frequency = frequency(y))
  test <- as.numeric(y)[(n - h + 1):n]
  f <- forecasts(train, h)
  part <- function(p) sprintf('{"mean":%s,"low":%s,"high":%s}', num(pmax(0, p$mean)), num(p$lower[, 1]), num(p$upper[, 1]))
  rows <<- c(rows, sprintf('{"kind":"%s","name":"%s","period":%d,"train":%s,"test":%s,"ets":%s,"arima":%s}',
    kind, name, as.integer(frequency(y)), num(train), num(test), part(f$ets), part(f$arima)))
}
own <- list(JohnsonJohnson = JohnsonJohnson, UKgas = UKgas, austres = austres, woolyrnq = woolyrnq,
  AirPassengers = AirPassengers, nottem = nottem, co2 = co2, wineind = wineind, ldeaths = ldeaths, mdeaths = mdeaths,
  fdeaths = fdeaths, USAccDeaths = USAccDeaths, UKDriverDeaths = UKDriverDeaths, gas = window(gas, start = c(1980, 1)))
for (name in c("AirPassengers", "nottem", "co2", "wineind", "ldeaths", "USAccDeaths", "UKDriverDeaths", "gas")) {
  own[[paste(name, "by quarter")]] <- aggregate(own[[name]], nfrequency = 4)
}
# The last year held back, and each of the two before it with what came after left out.
for (i in seq_along(own)) for (later in 0:2) {
  f <- frequency(own[[i]])
  add(if (f == 4) "R, quarters" else "R, months", paste(names(own)[i], later), head(own[[i]], length(own[[i]]) - later * f), f)
}
weeks <- 156; h <- 8; n <- weeks + h
whole <- function(x) ts(pmax(0, round(x)), frequency = 52)
for (k in seq_len(many)) {
  t <- 1:n; base <- runif(1, 20, 120)
  year <- base * runif(1, 0.15, 0.5) * sin(2 * pi * (t + runif(1, 0, 52)) / 52)
  add("trend", paste("trend", k), whole(base + base * runif(1, -0.003, 0.006) * t + rnorm(n, 0, sqrt(base) * 1.2)), h)
  add("season", paste("season", k), whole(base + year + rnorm(n, 0, sqrt(base) * 1.2)), h)
  at <- sample(60:140, 1)
  add("level shift", paste("shift", k), whole(base * ifelse(t > at, runif(1, 0.5, 1.8), 1) + rnorm(n, 0, sqrt(base) * 1.2)), h)
  add("AR(1)", paste("ar", k), whole(base + 0.3 * year + as.numeric(arima.sim(list(ar = runif(1, 0.6, 0.9)), n)) * sqrt(base) * 1.5), h)
  p <- runif(1, 0.1, 0.35)
  add("intermittent", paste("intermittent", k), whole(rbinom(n, 1, p) * (1 + rpois(n, 0.7))), h)
  add("lumpy", paste("lumpy", k), whole(rbinom(n, 1, p) * (1 + rnbinom(n, size = 0.7, mu = 12))), h)
  new <- sample(9:20, 1) + h
  add("new", paste("new", k), whole(base + rnorm(new, 0, sqrt(base) * 1.2)), h)
  y <- base + 0.5 * year + rnorm(n, 0, sqrt(base) * 1.2); y[weeks] <- y[weeks] * runif(1, 4, 8)
  add("outlier", paste("outlier", k), whole(y), h)
}
writeLines(paste0('{"took":', num(took / length(rows)), ',"series":[', paste(rows, collapse = ",\n"), "]}"), out)
