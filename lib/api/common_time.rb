module Api
  # The search for times, and times kept tentatively.
  class CommonTime < Resource
    on(:post, "/common-time", "findCommonTime", may: :search_times) { json common_time.find(**wish) }

    on(:post, "/common-time/check", "checkTime", may: :search_times) do
      json common_time.check(**wish, at: Time.iso8601(input[:at]))
    end

    on(:post, "/common-time/runs", "findRunTime", may: :search_times) { json use(Views::RunTimes).find(**wish) }

    on(:get, "/holds", "listHolds", may: :see_own) { json use(Views::Holds).list }

    on(:post, "/holds", "keepHold", may: :search_times) do
      holds.keep(**input, starts_at: Time.iso8601(input[:starts_at]))
      json use(Views::Holds).show(input[:id]), 201
    end

    on(:delete, "/holds/:id", "releaseHold", may: :keep_hold, of: :hold) do
      holds.release(params["id"])
      json use(Views::Holds).show(params["id"])
    end

    private

    # Whose own times are left out of the count must be somebody's who asks.
    def wish
      access = Loading::Access.new(person_id)
      access.allow!(:see_sheet, :series, input[:except_series_id]) if input[:except_series_id]
      access.allow!(:see_sheet, :meeting, input[:except_meeting_id]) if input[:except_meeting_id]
      input
    end

    def common_time = use(Views::CommonTime)

    def holds = use(UseCases::Holds)
  end
end
