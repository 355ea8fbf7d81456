module Loading
  # The mail about a series, for one reader after the other. What all of them share is read once.
  class InvitationMail
    # @param series [Records::Series] with keeper, place, members and their people
    # @param frame [MailFrame, nil] as it was when it was sent; nil: as it is now
    # @param way_in [#call] series and key of a person → the address that leads into their calls
    # @param deed [Array(String, String), nil] who has booked, moved or given back the time
    def initialize(series, now:, frame: nil, way_in: nil, deed: nil)
      @series = series
      @deed = deed
      @now = now
      @way_in = way_in || ->(of, person_id) { WayIn.address(of, person_id, at: now) }
      @frame = frame
      @next = NextPapers.new(series.id, now: now) unless frame
    end

    # The agenda and papers that go with it, as they are now. @return [NextPapers]
    attr_reader :next

    # @return [MailFrame]
    def frame = @frame ||= MailFrame.now(@series, @next, now: @now)

    # @return [Array<Array(String, String, String)>] name, type and bytes of what goes along with the mail of one reader
    def files(person)
      (@files ||= {})[others?(person)] ||= NextPapers.files(agenda(person), papers(person))
    end

    # @param one [Recipients::Recipient] whose kind may also be :reminder
    # @param content [Core::Invitation::Content] what is told
    # @param note [String, nil] a word for this once
    # @param wording [String, nil] the keeper's, with its placeholders
    # @param attendees [Array<Hash>] as Recipients gives them
    # @param at [Time] when it was sent
    # @param link [Symbol] :own where it is for that reader's eyes alone; :shown, with a placeholder for what is theirs,
    #   where others look at it; :none for words that go other ways
    # @return [Hash] what Mailing::Message#source takes besides key and address
    # @param why [String, nil] why it comes once more, where it does so by itself
    def parts(one, content:, note:, wording:, attendees: [], sequence: @series.sequence, at: @now, link: :own, why: nil)
      off = Core::Invitation::News::CANCELS.include?(one.kind)
      changes = off ? [] : changes(one, content, at)
      content = (link == :own) ? with_own_call(content, one.person) : with_plain_call(content)
      Mailing::Invitation.new(
        kind: one.kind, content: content, note: why || note, wording: filled(wording, one.person, content, at, link),
        keeper: frame.keeper, role: one.role.to_s, role_before: one.role_before&.to_s,
        first: said_first(one.person, content, at), changes: changes, from: at, lapsed: frame.lapsed_of(one.person.id),
        records: records?(content), agenda: (agenda(one.person) unless off),
        papers: off ? [] : papers(one.person),
        url: (series_url unless off || one.person.guest),
        answer_url: (answer_url(one.person, link) unless off), own_page: (CHANGE if books?(one.person)),
        options: frame.core_options, deed: @deed, own: one.person.id == @series.keeper_id, pasted: link == :none,
        calendar: (calendar(one, content, attendees, sequence, at) if link == :own && one.kind != :reminder)
      ).parts.merge(reply_to: frame.keeper_email)
    end

    # What a reader is told of: what holds, with their own way into the call, or what did where it is called off.
    # @return [Core::Invitation::Content]
    def told_to(one, content) = content.start ? with_own_call(content, one.person) : one.before || content

    private

    CHANGE = Mailing::BookingLetters::CHANGE
    private_constant :CHANGE

    # Whoever does not read closed topics is told less.
    def others?(person)
      return false unless closed.any?

      @readers ||= ClosedTopics.readers(@series)
      !@readers.include?(person.id)
    end

    def closed = @closed ||= Agenda.closed_in(frame.agenda)

    def agenda(person) = others?(person) ? closed.agenda(frame.agenda) : frame.agenda

    def papers(person) = others?(person) ? closed.papers(frame.papers) : frame.papers

    # Of a meeting that somebody has booked.
    def booking
      return @booking if defined?(@booking)

      @booking = Records::Booking.find_by(series_id: @series.id)
    end

    def books?(person) = booking&.person_id == person.id

    # What stands where somebody else reads it; it leads nowhere. Who has booked the time moves it or gives it back.
    def answer_url(person, link)
      case link
      when :own
        books?(person) ? OpenHoursLink.booking_address(booking) : AnswerLink.address(@series.id, person.id)
      when :shown then "#{Settings.origin}/answer/their-own-link"
      end
    end

    # A call made here has a link for each reader.
    def with_own_call(content, person)
      content.with(
        call: own_call(content.call, person),
        moved: content.moved.map { |one| one["call"] ? one.merge("call" => own_call(one["call"], person)) : one }
      )
    end

    # For whoever is shown it: the link everybody can use, with its passcode. A fresh one is that of the next meeting.
    def with_plain_call(content)
      plain = ->(call) { Core::Invitation::Call.of(call)&.ours ? plain_call : call }
      content.with(
        call: plain[content.call],
        moved: content.moved.map { |one| one["call"] ? one.merge("call" => plain[one["call"]]) : one }
      )
    end

    def plain_call
      coming = @series.meetings.coming(@now).in_order.select(:id)
      row = standing_call ||
        Records::Call.standing.where(meeting_id: coming).joins(:meeting).order("meetings.starts_at").first
      row&.plain&.to_plain
    end

    def own_call(plain, person)
      call = Core::Invitation::Call.of(plain)
      return plain unless call&.ours

      call.for(url: @way_in.call(@series, person.id), dial_in: standing_call&.dial_in).to_plain
    end

    def standing_call
      return @standing_call if defined?(@standing_call)

      @standing_call = Records::Call.standing.find_by(series_id: @series.id, meeting_id: nil)
    end

    def records?(content) = frame.records && !content.online&.ours.nil?

    def series_url = "#{Settings.origin}/series/#{@series.id}"

    def changes(one, content, at)
      return [] unless one.before

      Core::Invitation::Difference.between(one.before, content, reader: one.person.zone, from: at).map(&:to_h)
    end

    # The keeper's wording, filled for one reader.
    def filled(wording, person, content, at, link)
      return if wording.nil? || content.start.nil?

      agenda = agenda(person)
      Core::Invitation::Wording.fill(
        wording,
        "title" => content.title, "next" => first_meeting(person, content, at), "rule" => content.sentence(from: at),
        "place" => content.location, "call" => content.online&.to_s, "keeper" => content.keeper,
        "answer link" => answer_url(person, link),
        "agenda" => agenda && agenda[:topics].map { |topic| topic[:title] }.join("\n"),
        "left over" => agenda && left_over(agenda)
      )
    end

    def left_over(agenda)
      agenda[:left_over].map { |action| [action[:text], *action[:owners]].join(" – ") }.join("\n")
    end

    # Of a single meeting only where the reader's wall shows another time.
    def said_first(person, content, at)
      first_meeting(person, content, at) unless content.single? && content.zone == person.zone
    end

    # The next meeting on the reader's own wall.
    def first_meeting(person, content, at)
      first = content.next_start(at) if content.start
      Core::Words.moment(first, person.zone) if first
    end

    # A cancellation speaks of the meeting as it was last told. Where only what is to come is called off, what has been
    # stays.
    def calendar(one, content, attendees, sequence, at)
      off = cancels?(one, content)
      content = one.before if off && one.before
      return unless content&.start

      person = one.person
      url = person.guest ? AnswerLink.address(@series.id, person.id) : "#{series_url}/now"
      Core::Invitation::Request.new(
        method: off ? :cancel : :request, uid: SeriesContent.uid(@series.id), sequence: sequence, content: content,
        url: url, date_urls: date_urls(person, url), description: description(content, url), organizer: organizer,
        attendees: listed(one, off ? [] : attendees), own_answers: off ? {} : frame.own_answers(person.id),
        blocks: one.role != :informed, alarm_min: frame.alarm_min(person.id), now: at, mark: frame.mark
      ).to_ical
    end

    # Where a date that stands in the entry by itself leads: to its agenda, and its minutes later.
    def date_urls(person, url)
      @meeting_ids ||= @series.meetings.coming(@now).pluck(:original_start, :id)
        .to_h { |start, id| [Core::WallTime.of_fields(start).to_s, id] }
      @meeting_ids.transform_values { |id| person.guest ? "#{url}?date=#{id}" : "#{Settings.origin}/meetings/#{id}" }
    end

    def cancels?(one, content)
      return false unless Core::Invitation::News::CANCELS.include?(one.kind)

      content.start.nil? || one.kind == :taken_off || !frame.alarms.key?(one.person.id)
    end

    def description(content, url)
      recorded = Mailing::Invitation::RECORDED if records?(content)
      [content.purpose, Mailing::Join.new(content.online).text, recorded, url].compact.join("\n\n")
    end

    def organizer = Core::Invitation::Request::Organizer.new(name: frame.keeper, address: Settings.mail_from)

    def listed(one, others)
      me = {"id" => one.person.id, "name" => one.person.name, "address" => one.person.email, "role" => one.role.to_s}
      [me, *others.reject { |other| other["address"] == me["address"] }].map { |each| attendee(each, one.person) }
    end

    def said(person_id)
      (booking && frame.own_answers(person_id).values.first) || frame.run_answer(person_id)
    end

    # Their own answer stands as they gave it, unless they are asked anew. Of a booking everybody sees who has agreed.
    def attendee(listed, person)
      seen = listed["address"] == person.email || booking
      answer = seen ? said(listed["id"]) : "none"
      Core::Invitation::Request::Attendee.new(
        name: listed["name"], address: listed["address"], role: listed["role"].to_sym, answer: answer.to_sym,
        asked: frame.options[:answers_asked]
      )
    end
  end
end
