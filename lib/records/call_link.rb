module Records
  # A short address into the calls of a series: whose it is, and when it was told last. Its key is a digest of it.
  class CallLink < Base
  end
end
