module Records
  # A key that somebody's browser has made, with who made what by it and where: sent again, it says so to them alone.
  class MadeKey < Base; end
end
