module Api
  # What places are to have ready for meetings.
  class Preparations < Resource
    on :put, "/meetings/:id/preparations/:placeId", "askForPreparation", may: :move_meeting, of: :meeting do
      preparations.ask(meeting_id: params["id"], place_id: params["placeId"], **input)
      json sheet
    end

    on :get, "/preparation-links/:id/:token", "openPreparation", may: :link, of: :preparation do
      json use(Views::Preparations).show(link)
    end

    on :put, "/preparation-links/:id/:token", "answerPreparation", may: :link, of: :preparation do
      preparations.answer(link, **input)
      json use(Views::Preparations).show(reopened)
    end

    private

    def preparations = use(UseCases::Preparations)
  end
end
