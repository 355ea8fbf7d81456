require "openssl"

module UseCases
  # The private link in each invitation: what the invited see and answer without an account. Opening it changes nothing.
  class AnswerLinks < Base
    LISTED = 12

    # Whoever was taken off and comes back gets another: the old one may be with somebody else by now.
    def self.token(series_id, person_id)
      serial = Records::LinkSerial.of(series_id, person_id)
      OpenSSL::HMAC.hexdigest(
        "SHA256", Settings.secret, "answer:#{series_id}:#{person_id}#{":#{serial}" if serial.positive?}"
      )[
        0, 40
      ]
    end

    # From now on the link is another. Inside a transaction.
    def self.replace(series_id, person_id)
      row = Records::LinkSerial.find_or_initialize_by(series_id: series_id, person_id: person_id)
      row.update!(serial: row.serial.to_i + 1)
    end

    def self.address(series_id, person_id) = "#{Settings.origin}#{path(series_id, person_id)}"

    def self.path(series_id, person_id) = "/answer/#{series_id}/#{person_id}/#{token(series_id, person_id)}"

    # @raise [Core::NotFound] when the link is not, or no more, worth anything
    def show(series_id:, person_id:, token:)
      person, series = reader(series_id, person_id, token)
      zone = Core::Zone[person.time_zone]
      coming = meetings_of(series, person).where("ends_at > ?", now).where.not(state: %w[closed issued])
      meetings = coming.in_order.limit(LISTED).to_a
      replies =
        Records::Reply
          .where(person_id: person_id, meeting_id: meetings.map(&:id))
          .to_h { |reply| [reply.meeting_id, reply] }
      member = Records::SeriesMember.find_by(series_id: series_id, person_id: person_id)
      meetings.each { |meeting| meeting.association(:series).target = series }
      look_up(meetings, person_id)
      {
        title: series.title,
        purpose: series.purpose,
        location: series.location,
        call: series.call&.to_h,
        keeper: series.keeper.name,
        name: person.name,
        role: member&.role || "required",
        total: coming.count,
        zone_place: zone.place,
        sentence: member && series_sentence(series),
        run_answer: member&.run_answer || "none",
        run_note: member&.run_note,
        meetings:
          meetings.map do |meeting|
            meeting_view(meeting, zone, replies[meeting.id], person_id).merge(papers: Papers.of(meeting.id))
          end,
        agenda: agenda(meetings.find { |meeting| meeting.state == "planned" })
      }
    end

    # A paper of a meeting to come. @return [Records::Paper]
    def paper(series_id:, person_id:, token:, paper_id:)
      person, series = reader(series_id, person_id, token)
      Papers
        .new(clock: @clock)
        .find_whole(paper_id)
        .tap { |paper| raise Core::NotFound unless meetings_of(series, person).exists?(id: paper.meeting_id) }
    end

    def answer(series_id:, person_id:, token:, answer:, meeting_id: nil, note: nil)
      person, series = reader(series_id, person_id, token)
      find(meetings_of(series, person), meeting_id) if meeting_id
      Answers.new(by: person_id, clock: @clock).keep(
        series_id: series_id, person_id: person_id, answer: answer, meeting_id: meeting_id, note: note, way: "link",
        open_only: meeting_id.nil?
      )
      show(series_id: series_id, person_id: person_id, token: token)
    end

    # @see Feeds#mail_address
    def mail_feed(series_id:, person_id:, token:)
      reader(series_id, person_id, token)
      Feeds.new(by: person_id, clock: @clock).mail_address(person_id)
    end

    # Somebody else comes to one meeting instead.
    def send_instead(series_id:, person_id:, token:, meeting_id:, name:, email:)
      person, series = reader(series_id, person_id, token)
      find(meetings_of(series, person), meeting_id)
      Substitutes.new(by: person_id, clock: @clock).send_instead(
        meeting_id: meeting_id, person_id: person_id, name: name, email: email
      )
      show(series_id: series_id, person_id: person_id, token: token)
    end

    def offer(series_id:, person_id:, token:, id:, meeting_id:, local_start:, note: nil)
      person, series = reader(series_id, person_id, token)
      meeting = find(meetings_of(series, person), meeting_id)
      starts_at = Core::Zone[person.time_zone].instant(Core::WallTime.parse(local_start, pointer: "/localStart"))
      Answers.new(by: person_id, clock: @clock).offer(
        id: id, meeting_id: meeting_id, person_id: person_id, starts_at: starts_at,
        ends_at: starts_at + meeting.interval.length_min * 60, note: note
      )
      show(series_id: series_id, person_id: person_id, token: token)
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/localStart", code: error.code)
    end

    private

    def reader(series_id, person_id, token)
      raise Core::NotFound unless OpenSSL.secure_compare(AnswerLinks.token(series_id, person_id), token.to_s)
      unless Records::SeriesMember.exists?(series_id: series_id, person_id: person_id) ||
          Records::Substitute.of_series(series_id).exists?(person_id: person_id)
        raise Core::NotFound
      end

      [find(Records::Person, person_id), find(Records::Series.includes(:keeper, :held_place), series_id)]
    end

    def series_sentence(series) = SeriesContent.of(series, now).sentence

    # Who only stands in for somebody sees that meeting alone.
    def meetings_of(series, person)
      meetings = Records::Meeting.where(series_id: series.id)
      return meetings if Records::SeriesMember.exists?(series_id: series.id, person_id: person.id)

      meetings.where(id: Records::Substitute.where(person_id: person.id).select(:meeting_id))
    end

    # Once for all meetings shown: who has offered another time, who comes instead, who has signed up.
    def look_up(meetings, person_id)
      ids = meetings.map(&:id)
      @offered = Records::Counter.where(meeting_id: ids, person_id: person_id, state: "open").pluck(:meeting_id)
      @substitutes = Records::Substitute.where(meeting_id: ids).includes(:person, :instead_of).group_by(&:meeting_id)
      @accepted = Records::Reply.where(
        meeting_id: meetings.select { |meeting| meeting.options.sign_up }.map(&:id), answer: "accepted"
      ).group_by(&:meeting_id)
    end

    def options_view(meeting, person_id)
      options = meeting.options
      order = SignUps.of(meeting, @accepted[meeting.id] || []) if options.sign_up
      substitutes = @substitutes[meeting.id] || []
      {
        pass_on: options.pass_on && substitutes.none? { |one| one.person_id == person_id },
        answers_asked: options.answers_asked || options.sign_up,
        sign_up: options.sign_up,
        wait: order&.wait_of(person_id),
        places_left: order&.limit && (order.limit - order.in.size),
        substitute: substitutes.find { |one| one.instead_of_id == person_id }&.given_name,
        instead_of: substitutes.find { |one| one.person_id == person_id }&.instead_of&.name
      }
    end

    def meeting_view(meeting, zone, reply, person_id)
      {
        id: meeting.id,
        local_start: zone.wall(meeting.starts_at),
        local_end: zone.wall(meeting.ends_at),
        state: meeting.state,
        called_off_reason: meeting.called_off_reason,
        location: (meeting.location if meeting.own_where),
        call: (meeting.call&.to_h if meeting.own_where),
        answer: reply&.answer || "none",
        note: reply&.note,
        offered: @offered.include?(meeting.id),
        **options_view(meeting, person_id)
      }
    end

    # What is planned for the next one, in their order.
    def agenda(meeting)
      return [] unless meeting

      Topics.new(clock: @clock).here(meeting.id).map { |topic| {title: topic.title, length_min: topic.length_min} }
    end
  end
end
