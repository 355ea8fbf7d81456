module Records
  # How often something was tried, counted by all processes together.
  class Count < Base; end
end
