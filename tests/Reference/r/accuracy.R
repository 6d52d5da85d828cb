# Series of R and simulated intermittent demand, with what forecast::ets and forecast::croston make of them.
# Run: Rscript tests/Reference/r/accuracy.R > tests/Reference/r/accuracy.json   (recorded with R 4.2.2, forecast 8.20)
suppressMessages(library(forecast))
num <- function(x) paste0("[", paste(format(as.numeric(x), digits = 10, trim = TRUE), collapse = ","), "]")
out <- c()
add <- function(kind, name, period, train, test, theirs) {
  scale <- mean(abs(diff(train, lag = period)))
  out <<- c(out, sprintf('{"kind":"%s","name":"%s","period":%d,"train":%s,"test":%s,"theirs":%s,"mase":%.8f}',
    kind, name, as.integer(period), num(train), num(test), num(theirs), mean(abs(test - theirs)) / scale))
}
for (name in c("AirPassengers", "UKgas", "co2", "nottem", "JohnsonJohnson", "wineind", "woolyrnq")) {
  x <- get(name); f <- frequency(x); n <- length(x)
  train <- subset(x, end = n - f)
  add("ets", name, f, as.numeric(train), as.numeric(x)[(n - f + 1):n], as.numeric(forecast(ets(train), h = f)$mean))
}
set.seed(20261123)
for (i in 1:120) {
  y <- rbinom(116, 1, runif(1, .1, .6)) * (1 + rnbinom(116, size = 2, mu = runif(1, 1, 12)))
  if (i %% 4 == 0) y <- round(y * c(rep(1, 60), rep(.4, 56)))
  add("croston", paste0("simulated-", i), 1, y[1:104], y[105:116], as.numeric(croston(ts(y[1:104]), h = 12)$mean))
}
y <- c(0, 3, 0, 0, 5, 0, 2, 0, 0, 0, 4, 0, 0, 6, 0, 1, 0, 0, 3, 0)
add("croston-itself", "by-hand", 1, y, rep(1, 4), as.numeric(croston(ts(y), h = 4, alpha = .1)$mean))
cat("[", paste(out, collapse = ",\n"), "]\n", sep = "")
