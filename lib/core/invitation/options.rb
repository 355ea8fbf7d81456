module Core
  module Invitation
    # What the keeper has settled about answers: whether somebody may send another instead, whether answers are asked
    # for, whether people sign up, and for how many there is room (nil: for all). `remind_min` before the meeting, 0: no
    # reminder.
    class Options < Value.of(:pass_on, :answers_asked, :sign_up, :sign_up_limit, :remind_min)
      # @param own [Hash{Symbol => Object}] of one meeting; nil where it is as the series has it
      # @return [Options]
      def with_own(own)
        changed = own.slice(*NAMES).compact
        # A meeting that says for itself whether people sign up also says how many.
        changed[:sign_up_limit] = own[:sign_up_limit] unless own[:sign_up].nil?
        with(**changed)
      end

      USUAL = {"pass_on" => false, "answers_asked" => true, "sign_up" => false, "sign_up_limit" => nil}.freeze

      # What differs from the usual and the invited must know. @return [Hash{String => Object}, nil] nil when nothing
      # does
      def unusual =
        USUAL
          .reject { |name, usual| public_send(name) == usual }
          .to_h { |name, _| [name, public_send(name)] }
          .then { |plain| plain.empty? ? nil : plain }

      # How people answer, in words. @param plain [Hash{String => Object}] as `unusual` gives it
      def self.sentence(plain)
        own = USUAL.merge(plain)
        asked = own["answers_asked"] ? "please answer" : "no answer needed"
        answer =
          own["sign_up"] ? "please sign up#{", room for #{own["sign_up_limit"]}" if own["sign_up_limit"]}" : asked
        "#{answer}#{", you may send somebody else" if own["pass_on"]}"
      end

      # Whether those who say nothing are waited for: not where nobody is asked, nor where one comes forward oneself.
      def waits_for_answers? = answers_asked && !sign_up
    end
  end
end
