module RuboCop
  module Cop
    module LeftOver
      # The present comes from `Clock` (config/clock.rb) alone, so that everything can be run at another moment.
      class OneClock < Base
        MSG = "Ask Clock for the present."
        RESTRICT_ON_SEND = %i[now today current].freeze

        # @!method present?(node)
        def_node_matcher :present?, <<~PATTERN
          (send (const {nil? cbase} {:Time :Date :DateTime}) {:now :today :current} ...)
        PATTERN

        # @!method another?(node)
        def_node_matcher :another?, "(pair (sym :clock) (const {nil? cbase} {:Time :DateTime}))"

        def on_send(node)
          add_offense(node) if present?(node)
        end

        def on_pair(node)
          add_offense(node) if another?(node)
        end
      end
    end
  end
end
