module Core
  module Sheet
    # Reads a line of the minutes as people type it: "Ines to order shackles by Friday" is an action with owner and
    # date, "Decided: …" a decision, anything else a note. A reading is shown on the line and can be put right, so where
    # a sentence is open to doubt it stays a note. Its table of cases is spec/vectors/lines.yml.
    class LineReader
      include LinePatterns

      # `kind` is :note, :decision or :action; `text` what is to be kept; `owner_ids` who was named;
      # `doubtful` Doubts; `due_on` a Date or nil. A decision that gives somebody work has it in `action`, a Reading.
      # `parts` are the lines it would be, where it gives several people work; none where it is one.
      Reading = Value.of(:kind, :text, :owner_ids, :due_on, :doubtful, :action, :parts)

      # Somebody who can be named. `name` as they are called in full.
      Person = Value.of(:id, :name)

      # @param people [Array<Person>] who can be named
      # @param today [Date] the day of the meeting, from which "Friday" is counted
      # @param next_meeting_on [Date, nil] what "next meeting" means
      # @param everyone_ids [Array<String>] who "everybody" is; nil: all who can be named
      # @param called [Hash{String => String}] other words for somebody, such as "the chair"
      # @param dates [Hash] what DateReader takes besides: holidays, month_first
      # @param strangers [#call] a name → people of the house who are called so and cannot be named here, as Person
      def initialize(
        people:, today:, next_meeting_on: nil, everyone_ids: nil, called: {}, dates: {}, strangers: ->(_) { [] }
      )
        @strangers = strangers
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
        decision(bare) || several(bare) || work(bare) || dated_first(bare) || clause_first(bare) || behind(bare) ||
          passive(bare) || nobody(bare) || note(text)
      end

      def note(text)
        Reading.new(kind: :note, text: text, owner_ids: [], due_on: nil, doubtful: [], action: nil, parts: [])
      end

      def decision(text)
        match = DECISION.match(text) || SHOUTED.match(text)
        rest = match ? match.post_match.sub(/\A(?:that|to)\s+/i, "") : decided_whole(text) || given_out(text)
        return if rest.nil? || rest.empty?

        note(capitalize(rest)).with(kind: :decision, action: within(rest) || decided_work(rest))
      end

      # "Max 12k, Sunniva to sign": the work that is given out with what was decided.
      def decided_work(text)
        first, *deeds = segments(text)
        asked(deeds.first) if deeds.one? && !asked(first)
      end

      # The sentence in pieces, each of which but the first gives somebody work.
      # @return [Array<String>]
      def segments(text)
        cuts = []
        at = 0
        while cuts.size < MOST_DEEDS && (match = BETWEEN.match(text, at))
          at = match.end(0)
          right = text[at..]
          cuts << [match.begin(0), at] if @names.may_start?(right) && asking(right[0, SOON])
        end
        starts = [0, *cuts.map(&:last)]
        ends = [*cuts.map(&:first), text.length]
        starts.zip(ends).map { |from, to| text[from...to] }
      end

      # "Ines to buy rope, Rory to return the old one": whether that is one or two, only the writer knows.
      def several(text)
        parts = segments(text)
        return if parts.size < 2

        readings = parts.map { |part| work(part) }
        return unless readings.all?

        note(capitalize(text)).with(
          kind: :action, owner_ids: readings.flat_map(&:owner_ids).uniq, parts: parts,
          doubtful: readings.flat_map(&:doubtful).uniq + [Doubt.of(:several, COUNTED[parts.size] || parts.size)]
        )
      end

      # "The lamp is out; Wen to replace it": all of it is kept.
      def behind(text)
        first, *deeds = segments(text)
        return unless deeds.one? && first.length < text.length && text[first.length].match?(/[.;]/)

        asked(deeds.first)&.with(text: text)
      end

      # Work of an office, or of somebody of the house who cannot be named here: nobody's yet.
      def nobody(text)
        return if text.end_with?("?")

        office = OFFICE.match(text)
        match = office || STRANGER.match(text) or return

        deed = match.post_match.sub(/\A\s(?:to|will|shall|must)\s+/, "")
        return unless Deeds.asks?(deed) && (doubt = office ? who_is(match[0]) : elsewhere(match[0]))

        found = action(deed, Names::NOBODY) or return
        found.with(text: text[0, text.length - deed.length] + found.text.sub(/\A[[:upper:]]/, &:downcase))
          .then { |one| one.with(text: capitalize(one.text), doubtful: one.doubtful + [doubt]) }
      end

      def who_is(office) = Doubt.of(:office, office.sub(/\A[[:upper:]](?=[[:lower:]])/, &:downcase))

      def elsewhere(name)
        strangers = @strangers.call(name)
        Doubt.of(:stranger, Words.list(strangers.map(&:name), last: "or"), strangers) if strangers.any?
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
        text = text.sub(/\AI['’]ll\b/, "I will")
        asked(text) || apposed(text) || everyone(text) || someone(text) || marked(text) || politely(text) ||
          owner_behind(text) || assigned_behind(text) || addressed(text)
      end

      # "Ines to order …", "Ines and Lars will order …", "Lars asked Sunniva to …"
      def asked(text)
        found, deed = asking(text)
        action(deed, found) if found
      end

      # Who is asked and for what, before any day is looked for. @return [Array(Names::Found, String), nil]
      def asking(text)
        return if text.end_with?("?")

        found = @names.at_start(text) or return
        other = /\A\s+(?:asked|asks|will ask)\s+/i.match(found.rest)
        found = @names.at_start(other.post_match) || found if other
        found = accompanied(found)
        return [found, found.rest.lstrip] if found.rest.match?(/\A\s+not to\s+[[:lower:]]/)

        match = ASKED.match(found.rest) or return
        [found, match.post_match] if work?(match[1], match.post_match)
      end

      def work?(verb, deed)
        return false unless deed.match?(FIRST_WORD) && !deed.match?(STATING)
        return false if verb.match?(/to\z/i) && deed.match?(NO_DEED)

        !verb.match?(/should/i) || Deeds.asks?(deed)
      end

      # "Ines, who knows the yard, to ring them": all of it is kept.
      def apposed(text)
        found = @names.at_start(text) or return
        said = /\A,\s(?:who|as)\s[^,]{1,80},(?=\s)/.match(found.rest) or return
        asked(text[0, text.length - found.rest.length] + said.post_match)&.with(text: text)
      end

      # "Ines (with Wen) to …"
      def accompanied(found)
        match = /\A\s\((?:with|and)\s(?<who>[^()]{1,120})\)/i.match(found.rest) or return found
        others = @names.at_start(match[:who])
        return found unless others&.rest&.empty?

        Names::Found.new(
          owner_ids: found.owner_ids | others.owner_ids, doubtful: found.doubtful | others.doubtful,
          rest: match.post_match
        )
      end

      def everyone(text)
        match = EVERYONE.match(text) or return
        return if match[:called] && !Deeds.asks?(match.post_match)
        return unless deed?(text, match.post_match)

        action(match.post_match, Names::NOBODY.with(owner_ids: @everyone_ids))
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
        in_brackets = BRACKETED.match(rest)
        rest = "#{in_brackets[:who]}: #{in_brackets.post_match}" if in_brackets
        return if rest.empty? || rest.match?(NONE) || !match[0].match?(/[:–—-]\s*\z/) && !@names.at_start(rest)

        found = everyone(rest) || asked(rest)
        return found if found

        named = @names.at_start(rest)
        return owner_behind(rest) || assigned_behind(rest) || action(rest, Names::NOBODY) unless named

        action(named.rest.sub(/\A\s*[:,–—-]\s*/, "").sub(/\A(?:is |are )?to\s+/i, ""), named)
      end

      # "Ask Sunniva to …", "Please could Tomás …", "Could Ines please …"
      def politely(text)
        asking = ASKING.match(text)
        return asked(asking.post_match) if asking && @names.at_start(asking.post_match)

        match = POLITE.match(text) or return
        found = @names.at_start(match.post_match) or return
        deed = found.rest.sub(PLEASE_FIRST, "").sub(/\Ato\s+/i, "").sub(/\s*\?\z/, "")
        action(deed, found) if Deeds.asks?(deed) && (text.match?(PLEASE) || !text.end_with?("?"))
      end

      # "Order shackles. Owner: Ines. Due: 4 December"
      def owner_behind(text)
        match = OWNER.match(text) or return
        found = @names.at_start(match[:who].strip) or return
        return unless found.rest.strip.empty?

        due = match[:due] && @dates.alone(match[:due].strip)
        action(match.pre_match, found, due) if match[:due].nil? || due
      end

      # "Ask the port for a berth – Sunniva, 12 May", "… (Sunniva, by Friday)", "… [Sunniva]", "… → Rory", "… @Rory",
      # "Order lids. Wen."
      def assigned_behind(text)
        BEHIND_FORMS.each do |form|
          match = form.match(text) or next
          found = @names.at_start(match[:who]) or next
          rest = "#{found.rest}#{match[:due] if match.names.include?("due")}"
          rest = rest.sub(/\A\s*(?:[,:–—-]|to\sdo)?\s*/, "").sub(/\.\z/, "")
          due = rest.empty? ? nil : @dates.alone(rest)
          next unless rest.empty? || due
          next if form == NAME_ALONE && !Deeds.asks?(match[:deed])

          return action(match[:deed], found, due)
        end
        nil
      end

      # "@Wen check …", "Ines: order shackles": only where it begins with a word that asks for work.
      def addressed(text)
        found = @names.at_start(text) or return
        rest = found.rest
        colon = CALLED_UPON.match(rest)
        return unless colon || text.start_with?("@")

        deed = (colon ? colon.post_match : rest.lstrip).sub(PLEASE_OR_TO, "")
        action(deed, found) if Deeds.asks?(deed)
      end

      # "By Friday, Ines to …", "By Friday Ines to …"
      def dated_first(text)
        return unless text.match?(/\A(?:by|before|on|no later than)\s/i)

        phrase, rest = text.split(/,\s+/, 2)
        due = rest && @dates.alone(phrase, led: true)
        rest, due = dated_word_by_word(text) unless due
        reading = due && work(rest)
        reading&.with(due_on: reading.due_on || due.on)
      end

      # A day is said in few words.
      def dated_word_by_word(text)
        words = text.split
        (2..6).each do |number|
          rest = words.drop(number).join(" ")
          next unless @names.may_start?(rest)

          due = @dates.alone(words.first(number).join(" "), led: true)
          return [rest, due] if due
        end
        nil
      end

      # "Following the storm, Ines to …", "Budget: Ines to …": the deed keeps what it hangs on.
      def clause_first(text)
        clause = FIRST.match(text) || HEADED.match(text) || loose_clause(text) or return
        reading = asked(clause.post_match) or return
        reading.with(text: clause[0] + reading.text.sub(/\A[[:upper:]](?=[[:lower:]])/, &:downcase))
      end

      # "After some discussion Wen agreed to …"
      def loose_clause(text)
        return unless text.match?(CLAUSE)

        at = 0
        while (match = /\s/.match(text, at)) && at < 120
          at = match.end(0)
          return /\A.{#{at}}/.match(text) if @names.may_start?(text[at..]) && asking(text[at..])
        end
        nil
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

        odd = due&.odd ? [Doubt.of(:date, due.odd)] : []
        Reading.new(
          kind: :action, text: capitalize(rest), owner_ids: found.owner_ids, due_on: due&.on,
          doubtful: found.doubtful + odd, action: nil, parts: []
        )
      end

      def capitalize(text) = text.sub(FIRST_WORD, &:upcase)
    end
  end
end
