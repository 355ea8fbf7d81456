module Records
  # What went wrong in work that is looked for again and again, by step and what it was about. `tries`: how often in a
  # row.
  class Fault < Base; end
end
