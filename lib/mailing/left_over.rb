module Mailing
  # An action that is left over, in one line: what, whose, and by when.
  module LeftOver
    module_function

    # @param action [Hash] text, owners and due, the last in words, and nil where there is none
    def said(action) = [action[:text], *action[:owners], action[:due] && "by #{action[:due]}"].compact.join(" – ")
  end
end
