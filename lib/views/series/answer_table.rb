module Views
  # Who comes: answers per meeting and over the run, and all the keeper should know of them.
  class AnswerTable < Base
    AHEAD = 60
    BACK = 12
    # So near, it matters whether a quorum is sure.
    SOON_S = 3 * 86_400

    def show_of_meeting(meeting_id) = show(find(Records::Meeting, meeting_id).series_id)

    def show(series_id)
      @series = find(Records::Series.includes(members: :person), series_id)
      Records::Base.fill([@series], :keeper, known: @series.members.map(&:person))
      @meetings =
        @series
          .meetings
          .where(state: %w[planned in_session called_off])
          .where("ends_at > ?", now)
          .in_order
          .limit(AHEAD)
          .each { |meeting| meeting.association(:series).target = @series }
      @answers =
        Records::Answer
          .where(meeting_id: @meetings.map(&:id))
          .to_h { |given| [[given.meeting_id, given.person_id], given] }
      {
        meetings: @meetings.map { |meeting| meeting_view(meeting) },
        people: members.map { |member| person_view(member) }, offered_times: offered_times,
        aside: IncomingMails.new.kept_aside(series_id)[:mails]
      }
    end

    private

    # Asked for in every cell.
    def options(meeting) = (@options ||= {})[meeting.id] ||= meeting.options

    def members = @members ||= @series.members.sort_by do |member|
      [Core::Invitation::Roles::ALL.index(member.role.to_sym), member.person.name]
    end

    def asked = members.reject { |member| member.role == "informed" }

    def answer_of(meeting, member) = @answers[[meeting.id, member.person_id]]&.answer || "none"

    def meeting_view(meeting)
      answers = asked.map { |member| answer_of(meeting, member) }
      tally = %w[accepted tentative declined none].to_h { |answer| [answer, answers.count(answer)] }
      {
        id: meeting.id,
        local_start: @series.zone.wall(meeting.starts_at),
        state: meeting.state,
        tally: tally,
        silent:
          (options(meeting).waits_for_answers? ? asked : [])
            .reject { |member| member.person_id == by || !member.person.reachable? }
            .select { |member| answer_of(meeting, member) == "none" && !substitute_view(meeting, member) }
            .map { |member| member.person.name },
        quorum_note: quorum_note(meeting),
        sign_up: sign_up_view(meeting),
        options: options(meeting).to_h,
        own_options: meeting.own_options
      }
    end

    # For meetings people sign up for: how many have a seat of how many, and who waits.
    def sign_up_view(meeting)
      return unless options(meeting).sign_up

      order = sign_ups(meeting)
      {
        limit: order.limit, taken: order.in.size,
        waiting: order.waiting.map { |id| members.find { |member| member.person_id == id }&.person&.name }.compact
      }
    end

    def sign_ups(meeting) = (@sign_ups ||= {})[meeting.id] ||= Loading::SignUps.of(
      meeting, @answers.values.select { |given| given.meeting_id == meeting.id }
    )

    # Said in advance: whether those who must come and have not declined are still enough.
    def quorum_note(meeting)
      return if meeting.state == "called_off"

      answers = asked.select { |member| member.role == "required" }.map { |member| answer_of(meeting, member) }
      Core::Sheet::Attendance.quorum_note(@series.quorum, answers, soon: meeting.starts_at < now + SOON_S)
    end

    def person_view(member)
      away = away_lately[member.person_id] || 0
      {
        id: member.person_id,
        name: member.person.name,
        role: member.role,
        guest: member.person.guest,
        run_answer: member.run_answer,
        run_note: member.run_note,
        away_lately: away,
        away_of: past.size,
        often_away: Core::Sheet::Attendance.often_away?(away, past.size),
        failing: failing[member.person_id],
        answers: @meetings.map { |meeting| answer_view(meeting, member) }
      }
    end

    def answer_view(meeting, member)
      given = @answers[[meeting.id, member.person_id]]
      {
        meeting_id: meeting.id,
        answer: given&.answer || "none",
        note: given&.note,
        way: given&.way,
        entered_by: given&.entered_by_id && names[given.entered_by_id],
        answered_at: given&.answered_at,
        substitute: substitute_view(meeting, member),
        wait: (sign_ups(meeting).wait_of(member.person_id) if options(meeting).sign_up),
        busy_since: given&.answer == "accepted" && busy_since?(member, meeting, given.answered_at)
      }
    end

    def substitute_view(meeting, member)
      @substitutes ||=
        Records::Substitute
          .where(meeting_id: @meetings.map(&:id))
          .includes(:person)
          .to_h { |one| [[one.meeting_id, one.instead_of_id], one.person] }
      person = @substitutes[[meeting.id, member.person_id]] or return
      {name: person.name, answer: @answers[[meeting.id, person.id]]&.answer || "none"}
    end

    # Accepted, but busy elsewhere by what has come since: in their calendar, or as another meeting here.
    def busy_since?(member, meeting, answered_at)
      from, to = Core::Spans.minute(meeting.starts_at), Core::Spans.minute_after(meeting.ends_at)
      spans =
        known_since
          .fetch(member.person_id, [])
          .any? { |span| span.known_at > answered_at && span.starts_min < to && span.ends_min > from }
      spans ||
        meetings_elsewhere
          .fetch(member.person_id, [])
          .any? do |starts_at, ends_at, since|
            since > answered_at && starts_at < meeting.ends_at && ends_at > meeting.starts_at
          end
    end

    def range = @range ||= [@meetings.map(&:starts_at).min, @meetings.map(&:ends_at).max]

    def known_since
      @known_since ||=
        Records::BusySpan
          .where(owner_id: asked.map(&:person_id), kind: Records::BusySpan::KINDS.fetch(:busy))
          .where.not(known_at: nil)
          .touching(Core::Spans.minute(range[0]), Core::Spans.minute_after(range[1]))
          .group_by(&:owner_id)
    end

    # @return [Hash{String => Array<Array(Time, Time, Time)>}] by person: from, to, and since when it stands so
    def meetings_elsewhere
      @meetings_elsewhere ||=
        Records::SeriesMember
          .joins("join meetings on meetings.series_id = series_members.series_id")
          .where(person_id: asked.map(&:person_id), role: %w[required optional])
          .where.not(series_id: @series.id)
          .where(
            "meetings.state in ('planned', 'in_session') and meetings.starts_at < ? and meetings.ends_at > ?",
            range[1], range[0]
          )
          .pluck(
            :person_id, "meetings.starts_at", "meetings.ends_at",
            Arel.sql("coalesce(meetings.moved_at, meetings.created_at)")
          )
          .group_by(&:first)
          .transform_values { |rows| rows.map { |row| row.drop(1) } }
    end

    def past = @past ||= @series.meetings.where(state: %w[closed issued]).order(starts_at: :desc).limit(BACK).pluck(:id)

    def away_lately =
      @away_lately ||= Records::Attendance.where(meeting_id: past, state: %w[apologies absent]).group(:person_id).count

    # An address that the last mail could not reach, where the person stands.
    def failing
      @failing ||=
        begin
          ever = Records::Mail.where(series_id: @series.id, state: "failed").select(:recipient)
          last =
            Records::Mail
              .where(series_id: @series.id, way: "mail", recipient: ever)
              .where.not(state: "waiting")
              .order(:created_at, :id)
              .pluck(:recipient, :state, :last_error)
              .to_h { |recipient, state, error| [recipient, (error if state == "failed")] }
          members.to_h { |member| [member.person_id, last[member.person.email]] }.compact
        end
    end

    def names =
      @names ||= Records::Person.where(id: @answers.values.filter_map(&:entered_by_id).uniq).pluck(:id, :name).to_h

    def offered_times
      Records::OfferedTime
        .where(series_id: @series.id, state: "open")
        .includes(:person, :meeting)
        .order(:created_at, :id)
        .map do |offered|
          {
            id: offered.id,
            person: {
              id: offered.person_id, name: offered.person.name
            },
            meeting_id: offered.meeting_id,
            version: offered.meeting.lock_version,
            starts_at: offered.starts_at,
            meeting_local_start: @series.zone.wall(offered.meeting.starts_at),
            local_start: @series.zone.wall(offered.starts_at),
            local_end: @series.zone.wall(offered.ends_at),
            note: offered.note,
            fit: fit_of(offered)
          }
        end
    end

    # How the offered time suits everybody, in words.
    def fit_of(offered)
      roles = asked.to_h { |one| [one.person_id, one.role.to_sym] }
      availability = Loading::Availability.new(
        people: roles, from: offered.starts_at - 86_400, to: offered.ends_at + 86_400, now: now,
        except_series: @series.id
      )
      minutes = [offered.starts_at, offered.ends_at].map { |time| Core::Spans.minute(time) }
      search = Core::CommonTime::Search.new(
        Core::CommonTime::Request.new(
          from: minutes[0], to: minutes[1], length_min: minutes[1] - minutes[0], grid: Core::CommonTime::Grid.utc(5),
          allowed: nil, gap_min: 0, before_min: 0, after_min: 0
        ),
        availability.people
      )
      Core::CommonTime::Fit.at(search, minutes[0]).headline(availability.names)
    end
  end
end
