module Mailing
  # The other side will never take this message.
  class Refused < StandardError; end
end
