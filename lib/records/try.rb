module Records
  # How often something was tried, and until when nobody may try again.
  class Try < Base; end
end
