module Mailing
  # Nobody answers, or not now.
  class Unreachable < StandardError; end
end
