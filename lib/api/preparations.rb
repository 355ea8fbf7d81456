module Api
  # What places are to have ready for meetings.
  class Preparations < Resource
    on :put, "/meetings/:id/preparations/:placeId", "askForPreparation", may: :move_meeting, of: :meeting do
      preparations.ask(meeting_id: params["id"], place_id: params["placeId"], **input)
      json sheet
    end

    on :get, "/preparation-links/:id/:token", "openPreparation", may: :answer_by_link, of: :preparation_link do
      json use(Views::Preparations).show(link)
    end

    on :put, "/preparation-links/:id/:token", "answerPreparation", may: :answer_by_link, of: :preparation_link do
      preparations.answer(link, **input)
      json use(Views::Preparations).show(link)
    end

    private

    def preparations = use(UseCases::Preparations)

    def link = Loading::Preparation.of_link(params["id"], params["token"])
  end
end
