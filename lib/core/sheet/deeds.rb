module Core
  module Sheet
    # Words that ask for work where a sentence begins with them. Something hangs on them only where a line does not say
    # so otherwise ("Ines: order shackles"): a word that is not here leaves the line a note.
    module Deeds
      WORDS = %w[
        add address adjust advertise agree amend announce answer apologise apply appoint approach arrange ask
        assemble assess attach attend audit back block book borrow brief bring build buy calculate calibrate
        call cancel carry chair charge chase check circulate clarify clean clear close collect compare compile
        complete compose confirm consider consult contact coordinate copy correct count cover create cut deal
        decide define deliver describe design develop discuss dispose distribute document draft draw edit
        email empty enquire ensure establish estimate evaluate examine explain explore extend feed file fill
        finalise finalize find finish fit fix flag follow forward gather get give grease hand hang help hire
        identify implement improve include inform inspect install instruct introduce investigate invite
        invoice issue join keep label lay lead leave liaise lift list load log look mail maintain make mark
        measure meet mend mention monitor move negotiate note notify obtain offer open order organise organize
        oversee paint pass pay phone pick place plan post prepare present price print produce propose provide
        publish purchase put raise reach read rebuild recharge recommend record recruit redraft refund
        register remind remove renew rent repaint repair replace reply report request research reserve resolve
        respond return review revise ring rota run schedule scope search secure see select sell send set
        settle share ship show sign sort source speak splice split start stock stop store submit suggest
        supply survey take talk tell test thank tidy train transfer translate trial try turn update upload use
        verify visit walk warn wash weigh work write
      ].to_set.freeze

      module_function

      def asks?(text)
        word = text[/\A[[:alpha:]-]+/].to_s
        WORDS.include?(word.sub(/\Are-/, "re").downcase)
      end

      IRREGULAR = %w[
        bought brought built chosen cut dealt done drawn fed found given held hung kept laid led made met paid put read
        rung run seen sent set shown sold split spoken taken told written
      ].to_set.freeze

      # Whether it is what becomes of something that such a word is about: "obtained", "sent".
      def done?(word)
        return true if IRREGULAR.include?(word)

        stem = word[/\A(.+)ed\z/, 1] or return false
        [stem, "#{stem}e", stem.sub(/i\z/, "y"), stem.sub(/(.)\1\z/, "\\1")].any? { |form| WORDS.include?(form) }
      end

      # "orders the paint" as what is to be done: "order the paint"; nil when it does not begin with such a word.
      def of_third_person(text)
        word = text[/\A[[:lower:]-]+/] or return
        plain = [word.sub(/ies\z/, "y"), word.sub(/es\z/, ""), word.sub(/s\z/, "")].find do |form|
          form != word && WORDS.include?(form)
        end
        plain && plain + text.delete_prefix(word)
      end
    end
  end
end
