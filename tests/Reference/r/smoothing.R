# Reference values for simple smoothing and Holt-Winters, from R's own stats::HoltWinters on R's own series.
# Run: Rscript tests/Reference/r/smoothing.R > tests/Reference/r/smoothing.json   (recorded with R 4.2.2)
num <- function(x) paste0("[", paste(format(as.numeric(x), digits = 15, trim = TRUE), collapse = ","), "]")
out <- c()
for (name in c("AirPassengers", "UKgas", "nottem", "co2", "JohnsonJohnson")) {
  x <- get(name)
  ses <- HoltWinters(x, beta = FALSE, gamma = FALSE)
  for (kind in c("additive", "multiplicative")) {
    m <- HoltWinters(x, seasonal = kind)
    out <- c(out, sprintf('{"series":"%s","kind":"%s","period":%d,"values":%s,"parameters":%s,"sse":%.12g,"level":%.12g,"trend":%.12g,"forecast":%s,"ses":{"alpha":%.10g,"sse":%.12g}}',
      name, kind, frequency(x), num(x), num(c(m$alpha, m$beta, m$gamma)), m$SSE, coef(m)["a"], coef(m)["b"], num(predict(m, frequency(x))), ses$alpha, ses$SSE))
  }
}
cat("[", paste(out, collapse = ",\n"), "]\n", sep = "")
