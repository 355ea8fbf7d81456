module Core
  # How often work that fails is tried again, and after which pause.
  module Retries
    MOST_TRIES = 3
    FIRST_PAUSE_S = 10

    module_function

    # @param tries [Integer] begun so far, this one included
    # @return [Boolean] whether it is set aside now, for an admin to see
    def enough?(tries) = tries >= MOST_TRIES

    # @return [Integer] seconds until the next try: 10, then 40
    def pause_s(tries) = FIRST_PAUSE_S * 4**(tries - 1)
  end
end
