module Api
  # Meetings organised elsewhere to which somebody here is asked.
  class OutsideMeetings < Resource
    on(:get, "/outside-meetings", "listOutsideMeetings", may: :see_own) { json list }

    on :post, "/outside-meetings", "addOutsideMeeting", may: :take_invitation do
      id = use(UseCases::FileReadings).hand_in(
        "invitation", content: with_bytes(input)[:content], most: UseCases::OutsideMeetings::MOST_BYTES
      )
      json use(Views::FileReadings).show(id), 202
    end

    on(:get, "/file-readings/:id", "showFileReading", may: :see_file_reading, of: :file_reading) do
      json use(Views::FileReadings).show(params["id"])
    end

    on :put, "/outside-meetings/:id/answer", "answerOutsideMeeting", may: :keep_outside, of: :outside_meeting do
      answers.answer(id: params["id"], **input)
      json list
    end

    on(:post, "/outside-meetings/:id/offers", "offerOutside", may: :keep_outside, of: :outside_meeting) do
      answers.offer(id: params["id"], **input)
      json list, 201
    end

    on :post, "/outside-meetings/:id/series", "keepSheets", may: :keep_outside, of: :outside_meeting do
      series_id = use(UseCases::OutsideSheets).keep_sheets(id: params["id"], series_id: input[:id])
      json use(Views::SeriesPage).show(series_id), 201
    end

    on(:delete, "/outside-meetings/:id", "dismissOutsideMeeting", may: :keep_outside, of: :outside_meeting) do
      outside.dismiss(params["id"])
      json list
    end

    private

    def outside = use(UseCases::OutsideMeetings)

    def answers = use(UseCases::OutsideAnswers)

    def list = use(Views::OutsideMeetings).list
  end
end
