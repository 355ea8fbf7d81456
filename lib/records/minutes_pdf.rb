module Records
  # Issued minutes on paper, under the key of their version; apart, since hardly anybody who reads versions wants it.
  class MinutesPdf < Base; end
end
