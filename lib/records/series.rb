module Records
  class Series < Base
    include Searched

    attribute :called, :json
    belongs_to :keeper, class_name: "Records::Person"
    belongs_to :chair, class_name: "Records::Person"
    belongs_to :held_place, class_name: "Records::Place", foreign_key: :place_id, optional: true
    has_many :series_places, class_name: "Records::SeriesPlace"
    has_many :members, class_name: "Records::SeriesMember"
    has_many :meetings, class_name: "Records::Meeting"
    has_many :topics, class_name: "Records::Topic"
    has_many :actions, class_name: "Records::ActionItem"

    # Those somebody keeps, chairs or is a member of.
    scope :of_person,
      ->(person_id) do
        where(keeper_id: person_id).or(where(chair_id: person_id)).or(
          where(id: SeriesMember.where(person_id: person_id).select(:series_id))
        ).where(merged_into_id: nil)
      end
    # Those they run, and those they have been told of, by us or by whoever invites to them elsewhere.
    scope :shown_to,
      ->(person_id) do
        told = where(id: SeriesMember.where(person_id: person_id).select(:series_id)).where(
          id: Telling.where(person_id: person_id, kind: "request").select(:series_id)
        )
        elsewhere = where(id: SeriesMember.where(person_id: person_id).select(:series_id)).where.not(
          outside_meeting_id: nil
        )
        where(keeper_id: person_id).or(where(chair_id: person_id)).or(told).or(elsewhere).wanted
      end
    scope :run_by, ->(person_id) { where(keeper_id: person_id).or(where(chair_id: person_id)).wanted }
    # Not those that are part of another now, nor meetings somebody had booked and has given back.
    scope :wanted,
      -> do
        given_back = Booking.where(state: "given_back").where.not(series_id: nil).select(:series_id)
        where(merged_into_id: nil).where.not(id: given_back)
      end

    # Which public holidays it does not meet on, and what becomes of those dates.
    def holidays = {holidays_region: holidays_region, holidays_treatment: holidays_treatment}

    def zone = Core::Zone[time_zone]

    def run_by?(person_id) = [keeper_id, chair_id].include?(person_id)

    # Where it meets, in words: the place held for it, and what was written beside it.
    def location = [held_place&.name, place].compact.join(", ").then { |text| text.empty? ? nil : text }

    # @return [Core::Invitation::Call, nil]
    def call
      case call_kind
      when "own" then Core::Invitation::Call.typed(url: call_url, passcode: call_passcode, dial_in: call_dial_in)
      when *OURS then Core::Invitation::Call.ours(call_renewal, dials: call_dial)
      end
    end

    # Kinds of calls that are made here: one link for the whole run, or one for each meeting.
    OURS = %w[standing fresh].freeze

    def door
      Core::Calls::Door.new(policy: door_policy, opens_min: door_opens_min, stays_min: door_stays_min,
        quiet: door_quiet, presents: door_presents, records: door_records)
    end

    def options = Core::Invitation::Options.new(
      pass_on: pass_on, answers_asked: answers_asked, sign_up: sign_up, sign_up_limit: sign_up_limit,
      remind_min: remind_min
    )

    # @param by_hand [Array<Core::WallTime>] the starts of a run without a rule, the first left out
    def to_run(by_hand: [])
      Core::Recurrence::Run.new(start: Core::WallTime.of_fields(local_start), zone: zone, length_min: length_min,
        rule: rule && Core::Recurrence::Rule.parse(rule), dates: by_hand)
    end

    def search_text = {kind: "series", series_id: id, text: [title, purpose].compact.join("\n")}
  end
end
