module Records
  class Meeting < Base
    attribute :row_plan, :json
    belongs_to :series, class_name: "Records::Series"
    belongs_to :held_place, class_name: "Records::Place", foreign_key: :place_id, optional: true
    has_many :lines, class_name: "Records::Line"
    has_many :attendances, class_name: "Records::Attendance"
    has_many :answers, class_name: "Records::Answer"
    has_many :reviews, class_name: "Records::ActionReview"
    has_many :visits, class_name: "Records::TopicVisit", dependent: :delete_all

    has_many :bookings, class_name: "Records::PlaceBooking", dependent: :delete_all

    scope :in_order, -> { order(:starts_at, :id) }
    # As coming? has it.
    scope :coming, ->(now) { where(state: %w[planned in_session]).where("meetings.ends_at > ?", now) }

    # What is called off for a public holiday and not brought back.
    scope :left_for_holidays, ->(from) { where(for_holiday: true, state: "called_off").where("starts_at >= ?", from) }

    # Where those who say nothing are waited for, as Core::Invitation::Options#waits_for_answers? has it.
    scope :waiting_for_answers,
      -> do
        joins(:series).where("coalesce(meetings.answers_asked, series.answers_asked)")
          .where("not coalesce(meetings.sign_up, series.sign_up)")
      end

    # Of those the ones that wait for somebody who has neither answered nor sent another.
    scope :open_to,
      ->(person_id) do
        answered = Answer.where(person_id: person_id).where.not(answer: "none").select(:meeting_id)
        passed_on = Substitute.where(instead_of_id: person_id).select(:meeting_id)
        waiting_for_answers.where.not(id: answered).where.not(id: passed_on)
      end

    # Whether somebody is in its series or asked to it alone.
    def asked?(person_id) = asked([person_id]).any?

    # @return [Set<String>] those of some people who are
    def asked(person_ids)
      members = SeriesMember.where(series_id: series_id, person_id: person_ids).pluck(:person_id)
      (members + Substitute.where(meeting_id: id, person_id: person_ids).pluck(:person_id)).to_set
    end

    def interval = Core::Interval[starts_at, ends_at]

    # When it was held, or is planned for.
    # @return [Core::Interval]
    def held = Core::Sheet::Attendance.held(interval, begun_at)

    # @param zone [Core::Zone] @return [Date]
    def held_on(zone = series.zone) = zone.wall(held.starts_at).date

    # When its call is open; that of a meeting that is on, whenever it was planned for.
    # @return [Core::Interval]
    def call_open(now)
      return series.door.open_time(interval) unless state == "in_session"

      series.door.open_time_on(interval, begun_at, now)
    end

    # What holds for this meeting: its own, else what the series has.
    def options = series.options.with_own(own_options)

    # What is set for it alone; nil where it is as the series has it. @return [Hash{Symbol => Object}]
    def own_options = Core::Invitation::Options::NAMES.to_h { |name| [name, self[name]] }

    # Where this meeting is, in words: as its series, unless it is held elsewhere.
    def coming?(now) = %w[planned in_session].include?(state) && ends_at > now

    def location = own_where ? [held_place&.name, place].compact.join(", ").presence : series.location

    # @return [Core::Invitation::Call, nil]
    def call
      return series.call unless own_where

      case call_kind
      when "own" then Core::Invitation::Call.typed(url: call_url, passcode: call_passcode, dial_in: call_dial_in)
      when "fresh" then Core::Invitation::Call.ours(series.call_renewal, dials: series.call_dial)
      end
    end

    # Whether its call is made here, and for it alone or for the whole run. @return [String, nil] standing or fresh
    def call_ours
      kind = own_where ? call_kind : series.call_kind
      kind if Series::OURS.include?(kind)
    end

    # The places that are to be held for it, by key.
    def places_to_hold =
      own_where ? [place_id].compact : [series.place_id, *series.series_places.map(&:place_id)].compact.uniq

    def original_wall = Core::WallTime.of_fields(original_start)
  end
end
