module Core
  module Sheet
    # Reads a line of the minutes as people type it: "Ines to order shackles by Friday" is an action with owner and
    # date, "Decided: …" a decision, anything else a note. A reading is shown on the line and can be put right, so where
    # a sentence is open to doubt it stays a note. Its table of cases is spec/vectors/lines.yml.
    class LineReader
      # `kind` is :note, :decision or :action; `text` what is to be kept; `owner_ids` who was named;
      # `doubtful` the names that fit several people, as {name => [person ids]}, and dates that are not believed, as
      # {what is odd => []}; `due_on` a Date or nil. A decision that gives somebody work has it in `action`, a Reading.
      Reading = Value.of(:kind, :text, :owner_ids, :due_on, :doubtful, :action)

      # Somebody who can be named. `name` as they are called in full.
      Person = Value.of(:id, :name)

      BODY = "(?:the\\s)?(?:committee|board|meeting|group|team|council|trustees|panel)"
      DECIDED = "(?:decided|agreed|resolved|approved|accepted|adopted|rejected)"
      DECISION = /
        \A(?:(?:we[ ]|it[ ]was[ ]|it[ ]is[ ]|#{BODY}[ ](?:has[ ]|have[ ])?)?(?:unanimously[ ])?#{DECIDED}
        (?:[ ]unanimously)?(?:\s*[:–—-]\s*|\s+(?=that\b|to\b|not[ ]to\b|on\b))|(?:decision|resolution)\s*[:–—-]\s*)
      /ix
      # What an entry of a list begins with, typed or pasted.
      BULLET = /\A(?:(?:[-–—•*·]|\d{1,2}[.)]|[a-z][.)]|\[[ x]?\])\s+)+/i
      # These are decided in their own words.
      DECISION_WHOLE = /
        \A(?:(?:the\s)?(?:motion|proposal|resolution|amendment|carried|passed)\b.*
        \b(?:carried|passed|defeated|lost|rejected)\b|
        (?:carried|passed|defeated|lost|approved|adopted)\s+(?:unanimously|nem\.?\s*con|by\s+\d|\d+\s*[–-]\s*\d+)|
        (?:approved|adopted)\s+(?:the|last|minutes)\b|#{BODY}\s+(?:has\s+|have\s+)?#{DECIDED}\b|resolved\b|
        not\s+(?:agreed|approved|accepted|adopted|carried)\b|(?:agreed|approved|accepted|adopted|carried|rejected)\.?\z)
      /ix
      # "Budget approved": a thing of few words and what became of it.
      APPROVED = /
        \A(?<thing>[[:upper:]][^.,;:?!]{1,80}?)\s(?:was\s|were\s|is\s|are\s)?(?:approved|adopted|accepted)\.?\z
      /x
      NOT_APPROVED = /\b(?:not|never|nobody|has|have|had|be|been|to|will|would|who|he|she|we|they|i)\b/i
      WE_WILL = /\Awe (?:will|shall)\s+(?=(?<deed>[[:alpha:]]+)\b(?! (?:about|out|how|what|whether|if|when)\b))/i
      WE_SEE = %w[see look talk discuss consider meet try get find].freeze
      ACTION = /\A(?:action(?:\s(?:point|item))?|to do|ap)\b(?:\s#?\d{1,3})?(?:\s+(?:for|on)\b)?\s*[:–—-]?\s*/i
      EVERYONE = /\A(?:everyone|everybody|all)(?:\s+(?:is |are )?to\s+|(?<called>\s?:\s+)(?:please\s+)?)/i
      SOMEONE = /
        \A(?:someone|somebody|anyone|volunteers?|tb[cda]|n\.?\s?n\.?)\s+
        (?:(?:is\s|are\s|has\s|have\s|needs?\s|ought\s)?to|should|must|will)\s+
      /ix
      WE_NEED = /\A(?:we\s+)?(?:need|have|ought)\s+to\s+/i
      # "Quotes to be obtained by Friday": what is to be done, and perhaps by whom.
      PASSIVE = /\A(?<thing>[^.,;:?!]{1,120}?)\sto\sbe\s(?<done>[[:lower:]]+)(?<rest>[^?]*)\z/
      STATES = /\b(?:is|are|was|were|has|have|had|seems?|ought|needs?|nothing|much|more|lot|it|there)\b/i
      # "Following the storm, Ines to …"
      FIRST = /\A(?:following|after|before|once|when|if|as soon as|subject to|pending|until)\b[^,]{1,120},\s+/i
      # What stands between a name and the work.
      ASKED = /\A,?\s*(
        to|will|shall|must|should|ought\sto|has\sto|have\sto|needs?\sto|(?:is|are)\s(?:going\s)?to|
        (?:has\s|have\s)?(?:agreed|volunteered|offered|undertook|undertaken|promised)\sto|
        (?:was|were|is|are|has\sbeen|have\sbeen)\sasked\sto|agrees?\sto|volunteers?\sto
      )\s+/ix
      # "Lars asked Sunniva to …", "Ask Sunniva to …", "Please could Tomás …"
      ASKING = /\A(?:please\s+)?(?:ask|get|remind)\s+/i
      POLITE = /\A(?:please,?\s+)?(?:could|can|would|will)\s+(?:you\s+)?|\Aplease,?\s+/i
      # "Ines has moved", "Ines will be away": they state, they do not ask for work.
      STATING = /
        \A(?:be|been|have|has|had|not|never|probably|only|still|already|also\sbe|now\sbe|like|need|miss|arrive)\b
      /ix
      # What follows "to" when it is a direction and not a deed.
      NO_DEED = /
        \A(?:the|a|an|his|her|their|our|my|your|its|this|that|these|those|date|him|them|us|me|no|some|both|all|
        be|and|\d)\b
      /ix
      BEHIND = /\s*(?:->|→|⇒)\s*|\s+[–—-]+\s+/
      OWNER = /
        [\s.;,]+(?:owner|owners|who|responsible)\s*:\s*(?<who>.+?)
        (?:[.;,]+\s*(?:due|by|when)\s*:\s*(?<due>.+?))?\.?\z
      /ix
      FIRST_WORD = /\A[[:lower:]]/

      # @param people [Array<Person>] who can be named
      # @param today [Date] the day of the meeting, from which "Friday" is counted
      # @param next_meeting_on [Date, nil] what "next meeting" means
      # @param everyone_ids [Array<String>] who "everybody" is; nil: all who can be named
      # @param called [Hash{String => String}] other words for somebody, such as "the chair"
      # @param dates [Hash] what DateReader takes besides: holidays, month_first
      def initialize(people:, today:, next_meeting_on: nil, everyone_ids: nil, called: {}, dates: {})
        @everyone_ids = everyone_ids || people.map(&:id)
        @names = Names.new(people, called: called)
        @dates = DateReader.new(today: today, next_meeting_on: next_meeting_on, **dates)
      end

      # Of a long line its beginning is read, and the rest kept with it: who says what is to be done says it soon, and
      # reading costs more than in proportion.
      READ = 500

      # @return [Reading]
      def read(text)
        text = text.to_s.strip.gsub(/\s+/, " ")
        return whole(text) if text.length <= READ

        head = text[0, READ].sub(/ \S*+\z/, "")
        rest = text[head.length..]
        reading = whole(head)
        reading.with(text: reading.text + rest)
      end

      private

      # Where it is an entry of a list, what makes it one is no part of what was decided or is to be done.
      def whole(text)
        bare = text.sub(BULLET, "")
        decision(bare) || work(bare) || dated_first(bare) || clause_first(bare) || passive(bare) || note(text)
      end

      def note(text) = Reading.new(kind: :note, text: text, owner_ids: [], due_on: nil, doubtful: {}, action: nil)

      def decision(text)
        match = DECISION.match(text)
        rest = match ? match.post_match.sub(/\A(?:that|to)\s+/i, "") : decided_whole(text) || given_out(text)
        return if rest.nil? || rest.empty?

        note(capitalize(rest)).with(kind: :decision, action: within(rest))
      end

      def decided_whole(text)
        return text if text.match?(DECISION_WHOLE)

        thing = APPROVED.match(text)
        return text if thing && !thing[:thing].match?(NOT_APPROVED) && !@names.at_start(text)

        match = WE_WILL.match(text) or return
        deed = match[:deed].downcase
        text if Deeds.asks?(deed) && !WE_SEE.include?(deed) && !text.end_with?("?")
      end

      # "Agreed Wen will order lids": decided, and somebody's work.
      def given_out(text)
        rest = text[/\A(?:agreed|decided|resolved)\s+(.+)\z/i, 1]
        rest if rest && @names.at_start(rest) && within(rest)
      end

      # "Ines orders the paint by Friday", said of what was decided.
      def within(text)
        found = @names.at_start(text) or return
        deed = found.rest.lstrip
        several = found.owner_ids.size + found.doubtful.size > 1
        deed = Deeds.of_third_person(deed) unless several && Deeds.asks?(deed)
        deed ? action(deed, found) : asked(text)
      end

      def work(text)
        asked(text) || everyone(text) || someone(text) || marked(text) || politely(text) || owner_behind(text) ||
          assigned_behind(text) || addressed(text)
      end

      # "Ines to order …", "Ines and Lars will order …", "Lars asked Sunniva to …"
      def asked(text)
        return if text.end_with?("?")

        found = @names.at_start(text) or return
        other = /\A\s+(?:asked|asks|will ask)\s+/i.match(found.rest)
        found = @names.at_start(other.post_match) || found if other
        found = accompanied(found)
        return action(found.rest.lstrip, found) if found.rest.match?(/\A\s+not to\s+[[:lower:]]/)

        match = ASKED.match(found.rest) or return
        deed = match.post_match
        return unless deed.match?(FIRST_WORD) && !deed.match?(STATING)
        return if match[1].match?(/to\z/i) && deed.match?(NO_DEED)
        return if match[1].match?(/should/i) && !Deeds.asks?(deed)

        action(deed, found)
      end

      # "Ines (with Wen) to …"
      def accompanied(found)
        match = /\A\s\((?:with|and)\s(?<who>[^()]{1,120})\)/i.match(found.rest) or return found
        others = @names.at_start(match[:who])
        return found unless others&.rest&.empty?

        Names::Found.new(
          owner_ids: found.owner_ids | others.owner_ids, doubtful: found.doubtful.merge(others.doubtful),
          rest: match.post_match
        )
      end

      def everyone(text)
        match = EVERYONE.match(text) or return
        return if match[:called] && !Deeds.asks?(match.post_match)
        return unless deed?(text, match.post_match)

        action(match.post_match, Names::Found.new(owner_ids: @everyone_ids, doubtful: {}, rest: ""))
      end

      # An action that still needs an owner.
      def someone(text)
        match = SOMEONE.match(text)
        return action(match.post_match, Names::NOBODY) if match && deed?(text, match.post_match)

        deed = WE_NEED.match(text)&.post_match or return
        talk = WE_SEE.include?(deed[/\A[[:alpha:]]+/].to_s.downcase)
        action(deed, Names::NOBODY) if Deeds.asks?(deed) && !talk && deed?(text, deed)
      end

      def deed?(text, rest) = !text.end_with?("?") && !rest.match?(NO_DEED) && !rest.match?(STATING)

      # "Action: …", "Action Ines: …"
      def marked(text)
        match = ACTION.match(text) or return
        rest = match.post_match
        return if rest.empty? || !match[0].match?(/[:–—-]\s*\z/) && !@names.at_start(rest)

        named = @names.at_start(rest)
        return asked(rest) || owner_behind(rest) || assigned_behind(rest) || action(rest, Names::NOBODY) unless named

        asked(rest) || action(named.rest.sub(/\A\s*[:,–—-]\s*/, "").sub(/\A(?:is |are )?to\s+/i, ""), named)
      end

      # "Ask Sunniva to …", "Please could Tomás …", "Could Ines please …"
      def politely(text)
        asking = ASKING.match(text)
        return asked(asking.post_match) if asking && @names.at_start(asking.post_match)

        match = POLITE.match(text) or return
        found = @names.at_start(match.post_match) or return
        deed = found.rest.sub(/\A,?\s*(?:please\s+)?/i, "").sub(/\Ato\s+/i, "").sub(/\s*\?\z/, "")
        action(deed, found) if Deeds.asks?(deed) && (text.match?(/please/i) || !text.end_with?("?"))
      end

      # "Order shackles. Owner: Ines. Due: 4 December"
      def owner_behind(text)
        match = OWNER.match(text) or return
        found = @names.at_start(match[:who].strip) or return
        return unless found.rest.strip.empty?

        due = match[:due] && @dates.alone(match[:due].strip)
        action(match.pre_match, found, due) if match[:due].nil? || due
      end

      # "Ask the port for a berth – Sunniva, 12 May", "… (Sunniva, by Friday)", "… → Rory"
      def assigned_behind(text)
        match = /\A(?<deed>.+?)(?:#{BEHIND})(?<who>[^–—→]+)\z/o.match(text) ||
          /\A(?<deed>.+?)\s*\((?<who>[^()]+)\)\.?\z/.match(text) or return
        found = @names.at_start(match[:who]) or return
        rest = found.rest.sub(/\A\s*[,:]?\s*/, "").sub(/\.\z/, "")
        due = rest.empty? ? nil : @dates.alone(rest)
        return unless rest.empty? || due

        action(match[:deed], found, due)
      end

      # "@Wen check …", "Ines: order shackles": only where it begins with a word that asks for work.
      def addressed(text)
        found = @names.at_start(text) or return
        rest = found.rest
        colon = /\A\s*[:–—]\s*/.match(rest)
        return unless colon || text.start_with?("@")

        deed = (colon ? colon.post_match : rest.lstrip).sub(/\A(?:please|to)\s+/i, "")
        action(deed, found) if Deeds.asks?(deed)
      end

      # "By Friday, Ines to …"
      def dated_first(text)
        phrase, rest = text.split(/,\s+/, 2)
        due = rest && @dates.alone(phrase, led: true) or return
        reading = work(rest)
        reading&.with(due_on: reading.due_on || due.on)
      end

      # "Following the storm, Ines to …": the deed keeps what it hangs on.
      def clause_first(text)
        clause = FIRST.match(text) or return
        reading = work(clause.post_match) or return
        reading.with(text: clause[0] + reading.text.sub(/\A[[:upper:]](?=[[:lower:]])/, &:downcase))
      end

      # "Quotes to be obtained by Friday", "Minutes to be amended by MH"
      def passive(text)
        match = PASSIVE.match(text)
        return if match.nil? || match[:thing].match?(STATES) || !Deeds.done?(match[:done])

        deed = "#{match[:thing]} to be #{match[:done]}"
        by = /\A\sby\s/i.match(match[:rest])
        found = by && @names.at_start(by.post_match)
        found ? action("#{deed}#{found.rest}", found) : action("#{deed}#{match[:rest]}", Names::NOBODY)
      end

      # @param due [DateReader::Found, nil] when it stands elsewhere
      def action(deed, found, due = nil)
        rest, due = due ? [deed, due] : @dates.take(deed)
        rest = rest.sub(/[\s,;.]+\z/, "")
        return if rest.empty?

        odd = due&.odd ? {due.odd => []} : {}
        Reading.new(
          kind: :action, text: capitalize(rest), owner_ids: found.owner_ids, due_on: due&.on,
          doubtful: found.doubtful.merge(odd), action: nil
        )
      end

      def capitalize(text) = text.sub(FIRST_WORD, &:upcase)
    end
  end
end
